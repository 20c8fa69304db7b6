import { computed, inject, provide, reactive, ref, type InjectionKey } from 'vue'
import {
  answered,
  api,
  type Candidate,
  type Cut,
  type NewShape,
  type Outlines,
  type Placing,
  type Problem,
  RefusedError,
} from '../api/client'
import { once } from '../shared/once'
import { paper } from '../shared/paper'
import { fileName, handOver } from '../shared/picture'
import { useUnits } from '../shared/units'
import { useBuild } from '../shared/useBuild'
import { understand, whyNot } from '../shared/useQuantity'
import { useWords } from '../shared/useWords'

/** One part that is offered, and what the builder says of it. */
export interface Offer {
  key: number
  candidate: Candidate
  /** Drawn on the sheet that was read, not made by a calculator. */
  drawn: boolean
  taken: boolean
  name: string
  layers: number
  twin: boolean
  x: string
  y: string
  z: string
  doubt_dm2: number | null
}

export const AFT: { value: NonNullable<Placing['aft']>; title: string }[] = [
  { value: 'right', title: 'nose to the left' },
  { value: 'down', title: 'nose up' },
  { value: 'left', title: 'nose to the right' },
  { value: 'up', title: 'nose down' },
]
export const DATUMS: { value: NonNullable<Placing['datum']>; title: string }[] = [
  { value: 'front_middle', title: 'the middle of its front edge' },
  { value: 'front_corner', title: 'its front corner at the root' },
  { value: 'origin', title: 'the drawing’s origin' },
]

/** The server reads no larger drawing [bytes]. */
const LARGEST = 24 * 1024 * 1024

function sent(where: string, query: URLSearchParams, body: ArrayBuffer): Promise<Response> {
  return fetch(`/api/v1/${where}?${query}`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/octet-stream' },
    body,
  })
}

function setUp() {
  const { id, build, assessment, send } = useBuild()
  const { units } = useUnits()
  const words = useWords()

  const outlines = ref<Outlines>()
  const offers = ref<Offer[]>([])
  const file = ref<{ name: string; body: ArrayBuffer }>()
  const busy = ref(false)
  const wrong = ref('')
  const closing = ref(0)
  const scale = ref<number | null>(null)
  const tiles = ref<{ columns: number; overlap: number } | null>(null)
  const common = reactive({
    lot: '',
    assembly: '',
    aft: 'right' as NonNullable<Placing['aft']>,
    lie: 'flat' as NonNullable<Placing['lie']>,
    datum: 'front_middle' as NonNullable<Placing['datum']>,
    reference: 'nose' as NonNullable<Placing['reference']>,
  })
  let keys = 0

  const sheets = computed(() => (build.value?.lots ?? []).filter((lot) => lot.unit === 'dm2'))
  const sheet = computed(
    () => sheets.value.find((each) => each.id === common.lot) ?? sheets.value[0],
  )
  /** What a square decimetre of the sheet weighs by now [g]. */
  const constant = computed(
    () => assessment.value?.lots.find((each) => each.id === sheet.value?.id)?.constant ?? 0,
  )

  function offer(candidate: Candidate, drawn: boolean): Offer {
    return {
      key: ++keys,
      candidate,
      drawn,
      taken: candidate.flaw === null,
      name: candidate.name,
      layers: 1,
      twin: false,
      x: '',
      y: '',
      z: '',
      doubt_dm2: null,
    }
  }

  async function ask() {
    if (!file.value) return
    busy.value = true
    wrong.value = ''
    try {
      const response = await sent('outlines', howRead(), file.value.body)
      const told = await answered<Outlines>(
        response.json().then((body) => ({ data: body, error: body, response })),
      )
      outlines.value = told
      offers.value = [
        ...offers.value.filter((each) => !each.drawn),
        ...told.parts.map((part) => offer(part, true)),
      ]
    } catch (error) {
      const { name } = file.value
      wrong.value = whyNot(error, (field) => (field === 'file' ? name : undefined))
    } finally {
      busy.value = false
    }
  }

  function howRead(): URLSearchParams {
    const query = new URLSearchParams({ close_within_mm: String(closing.value) })
    if (scale.value) query.set('mm_per_unit', String(scale.value))
    if (tiles.value) query.set('columns', String(tiles.value.columns))
    if (tiles.value) query.set('overlap_mm', String(tiles.value.overlap))
    return query
  }

  /** The drawn parts that are to be kept, on paper at full size, to cut along. */
  async function print() {
    if (!file.value) return
    const query = howRead()
    drawn.value.forEach((each, k) => each.taken && query.append('part', String(k)))
    query.set('length', units.value.length.name === 'mm' ? 'mm' : 'in')
    query.set('paper', paper.value)
    try {
      const response = await sent('outlines.pdf', query, file.value.body)
      if (!response.ok) throw new RefusedError(response.status, (await response.json()) as Problem)
      const name = file.value.name.replace(/\.[^.]*$/, '')
      handOver(await response.blob(), fileName(name, 'full-size.pdf'))
    } catch (error) {
      wrong.value = whyNot(error, (field) => (['file', 'part'].includes(field) ? '' : undefined))
    }
  }

  /** Take or leave everything on one layer of the drawing. */
  function pressLayer(layer: string) {
    const on = offers.value.filter((each) => each.candidate.layer === layer && !each.candidate.flaw)
    const all = on.every((each) => each.taken)
    for (const each of on) each.taken = !all
  }
  const drawn = computed(() => offers.value.filter((each) => each.drawn))
  const layers = computed(() => [...new Set(drawn.value.map((each) => each.candidate.layer))])

  async function read(chosen: File) {
    if (chosen.size > LARGEST) {
      wrong.value = `${chosen.name} is larger than ${LARGEST / 1024 / 1024} MiB: export the outlines alone.`
      return
    }
    closing.value = 0
    scale.value = null
    tiles.value = null
    outlines.value = undefined
    offers.value = offers.value.filter((each) => !each.drawn)
    file.value = { name: chosen.name, body: await chosen.arrayBuffer() }
    await ask()
  }

  async function close(within: number) {
    closing.value = within
    await ask()
  }

  /** One true length gives the scale: of the whole drawing across, or of one part. */
  async function know(length: string, drawn: number) {
    try {
      const mm = await understand(length, 'length', units.value.length.name)
      if (drawn > 0) scale.value = (mm / drawn) * (outlines.value?.mm_per_unit ?? 1)
      await ask()
    } catch (error) {
      wrong.value = `Length: ${whyNot(error)}`
    }
  }

  /** The pages are tiles of one plan, in so many columns, each overlapping the next. */
  async function putTogether(columns: string, overlap: string) {
    try {
      const count = await understand(columns, 'pieces')
      const mm = overlap.trim() ? await understand(overlap, 'length', units.value.length.name) : 0
      tiles.value = { columns: Math.round(count), overlap: mm }
      await ask()
    } catch (error) {
      wrong.value = `Tiles: ${whyNot(error)}`
    }
  }

  async function measure(shape: NewShape): Promise<Candidate | undefined> {
    try {
      return await answered<Candidate>(api.POST('/api/v1/shapes', { body: shape }))
    } catch (error) {
      wrong.value = whyNot(error)
      return undefined
    }
  }

  function add(candidate: Candidate, doubt: number | null = null) {
    wrong.value = ''
    offers.value = [{ ...offer(candidate, false), doubt_dm2: doubt }, ...offers.value]
  }

  const chosen = computed(() => offers.value.filter((each) => each.taken))

  async function cut(each: Offer): Promise<Cut> {
    const length = units.value.length.name
    const read = (text: string) =>
      text.trim() ? understand(text, 'station', length) : Promise.resolve(0)
    const { candidate } = each
    return {
      name: each.name.trim() || candidate.name,
      area_dm2: candidate.area_dm2,
      x_mm: candidate.x_mm,
      y_mm: candidate.y_mm,
      box: candidate.box,
      rings: candidate.rings,
      lot: sheet.value?.id ?? '',
      layers: each.layers,
      twin: each.twin,
      assembly: common.assembly.trim(),
      doubt_dm2: each.doubt_dm2,
      placing: each.x.trim()
        ? {
            x_mm: await read(each.x),
            y_mm: await read(each.y),
            z_mm: await read(each.z),
            reference: common.reference,
            aft: common.aft,
            lie: common.lie,
            datum: common.datum,
          }
        : null,
    }
  }

  /** Keep what is chosen as parts of the build; the rest stays offered. */
  const keep = once(async () => {
    wrong.value = ''
    try {
      // What is ticked while these are on their way stays offered.
      const these = chosen.value
      const cuts = await Promise.all(these.map(cut))
      const count = cuts.reduce((sum, each) => sum + (each.twin ? 2 : 1), 0)
      const kept = await send((header) =>
        answered(
          api.POST('/api/v1/builds/{build_id}/cuts', {
            params: { path: { build_id: id.value }, header },
            body: { cuts },
          }),
        ),
      )
      if (!kept) return
      const gone = new Set(these.map((each) => each.key))
      offers.value = offers.value.filter((each) => !gone.has(each.key))
      words.say(`${count === 1 ? 'One part' : `${count} parts`} kept: on the tray and on the Plan.`)
    } catch (error) {
      wrong.value = whyNot(error)
    }
  })

  return {
    outlines,
    offers,
    drawn,
    file,
    busy,
    wrong,
    closing,
    common,
    sheets,
    constant,
    chosen,
    layers,
    pressLayer,
    read,
    close,
    know,
    putTogether,
    print,
    measure,
    add,
    keep,
  }
}

type Candidates = ReturnType<typeof setUp>
const CANDIDATES: InjectionKey<Candidates> = Symbol('candidates')

/** Parts offered by a drawing or a shape, until the build keeps them. */
export function openCandidates(): Candidates {
  const candidates = setUp()
  provide(CANDIDATES, candidates)
  return candidates
}

/** What the drawing and the shapes that are open offer. */
export function useCandidates(): Candidates {
  const candidates = inject(CANDIDATES)
  if (!candidates) throw new Error('no drawing is set up here')
  return candidates
}
