import { computed, ref } from 'vue'
import {
  answered,
  api,
  RefusedError,
  type Part,
  type NewPart,
  type Opened,
  type PartAdded,
} from '../api/client'
import { usePartWords } from '../say/parts'
import { once } from '../shared/once'
import { merged } from '../shared/merged'
import { useUnits } from '../shared/units'
import { useBeginnings } from '../shared/useBeginnings'
import { useBuild } from '../shared/useBuild'
import { useRack } from '../shared/useRack'
import { usePartLine } from './usePartLine'

/** What is typed of a part, and how it is kept: changed, added, or added from one line. `kept` is
 * told once it is. */
export function usePartKeeping(part: Part | undefined, kept: () => unknown) {
  const { id, build, addPart, changePart, removePart, send } = useBuild()
  const { units } = useUnits()
  const { lots, others, take } = useRack()
  const beginnings = useBeginnings()
  const { spoken } = usePartWords()
  /** What was typed last, as it was understood. */
  const said = ref('')
  const { fields, wrong, amountUnit, multiplied, typedPart, next } = usePartLine(part)

  const weighed = computed(() =>
    build.value?.weighings.some((each) => each.pan.loads.some((load) => load.part === part?.id)),
  )
  const shelved = computed(() => /^rack:(.*)$/.exec(fields.lot)?.[1])

  /** Walking through the list takes nothing into the build: that is done when the part is kept. */
  function chooseLot() {
    const lot =
      build.value?.lots.find((each) => each.id === fields.lot) ??
      others.value.find((each) => each.lot.id === shelved.value)?.lot
    fields.pedigree = (lot && beginnings.value?.known_by[lot.kind]) ?? 'guess'
  }

  async function takeShelved(): Promise<boolean> {
    const wanted = shelved.value
    if (!wanted) return true
    if (!(await take(wanted))) return false
    fields.lot = lots.value.find((each) => each.rack === wanted)?.id ?? ''
    return fields.lot !== ''
  }

  /** The part of the line that was kept last, where all its pieces would weigh otherwise if its
   * mass were of each: as long as it stands as it was taken. */
  const taken = ref<{ part: string; taken: number; grams: number }>()
  const ifEach = computed(() => {
    const now = build.value?.parts.find((each) => each.id === taken.value?.part)
    return now && now.stated_g === taken.value?.taken ? taken.value : undefined
  })
  /** A line whose station lies off the plane: kept once Enter is pressed on it again. */
  const asked = ref('')

  /** The name alone was typed, and all else is plain: it may be the whole part on one line. */
  const isLine = computed(
    () =>
      !part &&
      ![fields.amount, fields.lot, fields.x, fields.y, fields.z].some((each) => each.trim()) &&
      fields.pedigree === 'guess' &&
      fields.pieces.trim() === '1' &&
      !fields.option &&
      !fields.colour,
  )

  function addLine(): Promise<boolean> {
    const line = fields.name.trim()
    const { mass, length, area, run } = units.value
    const ask = async (header: { 'If-Match': string }) => {
      try {
        const told = await answered<PartAdded>(
          api.POST('/api/v1/builds/{build_id}/parts/line', {
            params: { path: { build_id: id.value }, header },
            body: {
              line,
              assembly: fields.assembly.trim(),
              mass: mass.name,
              length: length.name,
              area: area.name.replace('²', '2'),
              run: run.name,
              sure: asked.value === line,
            },
          }),
        )
        asked.value = ''
        const grams = told.if_each_g
        const added = told.build.parts.at(-1)
        if (added?.stated_g != null && grams !== null)
          taken.value = { part: added.id, taken: added.stated_g, grams }
        return told
      } catch (error) {
        asked.value = error instanceof RefusedError && error.status === 409 ? line : ''
        throw error
      }
    }
    return send(ask, (field) => (field === 'line' ? '' : undefined), wrong)
  }

  /** What a weighed part is now: its figure was wrong, or it is another part. Null while not
   * asked. */
  const weighedAnew = ref<NewPart | null>(null)

  function isAnother(typed: NewPart): boolean {
    if (!part || !weighed.value) return false
    return (
      typed.stated_g !== part.stated_g ||
      JSON.stringify(typed.uses?.map((use) => [use.lot, use.amount])) !==
        JSON.stringify(part.uses.map((use) => [use.lot, use.amount]))
    )
  }

  /** Only what was changed here is: another hand may have moved it since the form was opened. */
  const changed = (from: Part, typed: NewPart) =>
    changePart(from.id, (now) => merged<NewPart>(from, typed, now))

  async function figureWasWrong() {
    const typed = weighedAnew.value
    weighedAnew.value = null
    if (typed && part && (await changed(part, typed))) await kept()
  }

  /** Another part in its place: what was weighed speaks on of the one before. */
  async function anotherPart() {
    const typed = weighedAnew.value
    weighedAnew.value = null
    if (!typed || !part) return
    const fresh: NewPart = {
      name: typed.name,
      pedigree: typed.pedigree,
      ...(typed.stated_g === undefined ? {} : { stated_g: typed.stated_g }),
      ...(typed.uses ? { uses: typed.uses } : {}),
      pieces: typed.pieces ?? 1,
      station: typed.station ?? null,
      colour: typed.colour ?? null,
    }
    const replaced = await send((header) =>
      answered<Opened>(
        api.POST('/api/v1/builds/{build_id}/parts/{part_id}/replace', {
          params: { path: { build_id: id.value, part_id: part.id }, header },
          body: { part: fresh, words: `${part.name} replaced by another` },
        }),
      ),
    )
    if (replaced) await kept()
  }

  async function keptAsLine(): Promise<boolean> {
    wrong.value = fields.name.trim() ? '' : 'Name: give the part a name'
    return !wrong.value && addLine()
  }

  async function keptAsTyped(): Promise<boolean> {
    const isThere = await takeShelved()
    begun = next()
    const typed = isThere ? await typedPart() : undefined
    if (!typed) return false
    if (isAnother(typed)) {
      weighedAnew.value = typed
      return false
    }
    return part ? changed(part, typed) : addPart(typed)
  }

  /** Ready for the next part, but for what was typed of it while this one was on its way. */
  let begun = next()
  const keep = once(async () => {
    said.value = ''
    taken.value = undefined
    begun = next()
    if (await (isLine.value ? keptAsLine() : keptAsTyped())) {
      const added = build.value?.parts.at(-1)
      if (!part && added) said.value = spoken(added)
      if (!part) begun()
      await kept()
    }
  })

  /** The mass that was said is of each. */
  async function itIsOfEach() {
    const meant = ifEach.value
    if (!meant) return
    if (!(await changePart(meant.part, (now) => ({ ...now, stated_g: meant.grams })))) return
    const now = build.value?.parts.find((each) => each.id === meant.part)
    said.value = now ? spoken(now) : ''
  }

  async function drop() {
    if (part && (await removePart(part))) await kept()
  }

  return {
    fields,
    wrong,
    said,
    ifEach,
    itIsOfEach,
    amountUnit,
    multiplied,
    weighed,
    weighedAnew,
    chooseLot,
    keep,
    figureWasWrong,
    anotherPart,
    drop,
  }
}
