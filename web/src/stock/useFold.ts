import { keepPreviousData, useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, reactive, ref, watch } from 'vue'
import { answered, api, type Cut, type Folded, type NewFold, type Opened } from '../api/client'
import { once } from '../shared/once'
import { useBuild } from '../shared/useBuild'
import { whyNot } from '../shared/useQuantity'
import { useWords } from '../shared/useWords'

export type FoldKind = NewFold['kind']

export interface FoldField {
  key: string
  title: string
  /** A share of the chord, not a length. */
  isShare?: boolean
  isOptional?: boolean
}

export const FOLDS: Record<FoldKind, { title: string; fields: FoldField[] }> = {
  box: {
    title: 'a fuselage box',
    fields: [
      { key: 'length_mm', title: 'long' },
      { key: 'width_mm', title: 'wide outside' },
      { key: 'height_mm', title: 'high outside' },
      { key: 'rear_width_mm', title: 'wide at the rear', isOptional: true },
      { key: 'rear_height_mm', title: 'high at the rear', isOptional: true },
      { key: 'doubled_to_mm', title: 'sides doubled, back to', isOptional: true },
      { key: 'doubled_from_mm', title: 'doubled from', isOptional: true },
    ],
  },
  wing: {
    title: 'a half wing, by its section',
    fields: [
      { key: 'span_mm', title: 'half span' },
      { key: 'chord_mm', title: 'chord at the root' },
      { key: 'tip_chord_mm', title: 'chord at the tip', isOptional: true },
      { key: 'thickness_mm', title: 'thick over all' },
      { key: 'spar_at', title: 'spar at, share of the chord', isShare: true },
      { key: 'doubler_mm', title: 'strip under the spar, wide', isOptional: true },
    ],
  },
  sides: {
    title: 'a half wing, by the sides as cut',
    fields: [
      { key: 'span_mm', title: 'half span' },
      { key: 'lower_mm', title: 'lower skin' },
      { key: 'front_mm', title: 'upper skin, ahead of the spar' },
      { key: 'rear_mm', title: 'upper skin, behind it' },
    ],
  },
}

const START: Record<string, number | null> = {
  length_mm: 600, width_mm: 60, height_mm: 80, rear_width_mm: null, rear_height_mm: null,
  span_mm: 500, chord_mm: 190, tip_chord_mm: null, thickness_mm: 22, spar_at: 0.3,
  doubled_to_mm: null, doubled_from_mm: null, doubler_mm: null,
  lower_mm: 190, front_mm: 60, rear_mm: 135,
} // prettier-ignore

const NAMES: Record<FoldKind, string> = { box: 'Fuselage box', wing: 'Wing', sides: 'Wing' }

/** Something folded from one board: what is cut for it, and what comes out. */
export function useFold() {
  const { id, build, send } = useBuild()
  const words = useWords()

  const kind = ref<FoldKind>('box')
  const sizes = reactive({ ...START })
  const way = ref<'groove' | 'strip'>('groove')
  const hasTop = ref(false)
  const name = ref('')
  const twin = ref(true)
  const station = ref<number | null>(null)
  const height = ref<number | null>(null)
  const wrongKept = ref('')

  const sheets = computed(() => (build.value?.lots ?? []).filter((lot) => lot.unit === 'dm2'))
  const lot = ref('')
  const sheet = computed(
    () => sheets.value.find((each) => each.id === lot.value) ?? sheets.value[0],
  )
  const board = ref(5)
  watch(sheet, (now) => (board.value = now?.thickness_mm ?? board.value), { immediate: true })

  const body = computed<NewFold>(() => {
    const own = Object.fromEntries(
      FOLDS[kind.value].fields.map(({ key }) => [key, sizes[key]]).filter(([, mm]) => mm !== null),
    )
    const how = kind.value === 'sides' ? {} : { way: way.value }
    const top = kind.value === 'box' ? { has_top: hasTop.value } : {}
    const called = name.value.trim() || NAMES[kind.value]
    return {
      kind: kind.value,
      name: called,
      board_mm: board.value,
      ...own,
      ...how,
      ...top,
    } as NewFold
  })
  const client = useQueryClient()
  const asked = (made: NewFold) => ({
    queryKey: ['fold', made],
    queryFn: () => answered<Folded>(api.POST('/api/v1/folds', { body: made })),
  })
  const query = useQuery({
    queryKey: computed(() => ['fold', body.value]),
    queryFn: () => asked(body.value).queryFn(),
    placeholderData: keepPreviousData,
    retry: false,
  })
  const folded = computed(() => query.data.value)
  const wrong = computed(() => (query.error.value ? whyNot(query.error.value, called) : ''))

  /** A field of the core, called as the form calls it. */
  function called(name: string): string | undefined {
    const field = FOLDS[kind.value].fields.find(({ key }) => key === name)
    if (field) return `“${field.title}”`
    return name === 'board_mm' ? 'the board' : undefined
  }

  /** Keep it as a part, or as a left and a right one. */
  const keep = once(async () => {
    const from = sheet.value
    if (!from) return
    wrongKept.value = ''
    let told: Folded
    try {
      // What is seen may still be of the sizes before.
      told = await client.fetchQuery({ ...asked(body.value), staleTime: Infinity })
    } catch {
      return // what is wrong with them is said already
    }
    const isBox = kind.value === 'box'
    const { part } = told
    const cut: Cut = {
      name: name.value.trim() || NAMES[kind.value],
      area_dm2: part.area_dm2 - told.groove_dm2,
      x_mm: part.x_mm,
      y_mm: part.y_mm,
      box: part.box,
      rings: part.rings,
      folds: told.folds.map((fold) => [fold.start, fold.end]),
      grain: 'along',
      lot: from.id,
      layers: 1,
      twin: !isBox && twin.value,
      assembly: isBox ? 'Fuselage' : 'Wing',
      placing:
        station.value === null
          ? null
          : {
              x_mm: station.value,
              z_mm: height.value ?? 0,
              aft: isBox ? 'right' : 'down',
              datum: isBox ? 'front_middle' : 'front_corner',
            },
    }
    const cuts = [cut, ...told.doublers.map((each) => doubler(each, cut))]
    try {
      const kept = await send((header) =>
        answered<Opened>(
          api.POST('/api/v1/builds/{build_id}/cuts', {
            params: { path: { build_id: id.value }, header },
            body: { cuts },
          }),
        ),
      )
      if (kept) words.say(`${cut.name} kept: on the tray, on the Plan, and to be cut.`)
    } catch (error) {
      wrongKept.value = whyNot(error)
    }
  })

  /** A second layer inside, beside what it is glued into. */
  function doubler(each: Folded['doublers'][number], beside: Cut): Cut {
    const { part, is_upright } = each
    return {
      ...beside,
      name: part.name,
      area_dm2: part.area_dm2,
      x_mm: part.x_mm,
      y_mm: part.y_mm,
      box: part.box,
      rings: part.rings,
      folds: [],
      twin: each.pieces > 1 || (beside.twin ?? false),
      placing: beside.placing
        ? {
            ...beside.placing,
            x_mm: beside.placing.x_mm + each.begins_mm,
            y_mm: each.out_mm ?? 0,
            lie: is_upright ? 'upright' : 'flat',
          }
        : null,
    }
  }

  return {
    kind, sizes, way, hasTop, name, twin, station, height, sheets, lot, sheet, board, folded, wrong,
    wrongKept, keep,
  } // prettier-ignore
}
