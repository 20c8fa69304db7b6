import { useQuery } from '@tanstack/vue-query'
import { refDebounced } from '@vueuse/core'
import { computed, reactive, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import {
  answered,
  api,
  type DrawerThing,
  type MapPoint,
  type Opened,
  type RackLot,
  type SpanChordMap,
  type StartDoc,
  type SuggestedTarget,
} from '../api/client'
import { whyNot } from '../shared/useQuantity'

const ONE_OF = ['motor', 'propeller', 'controller', 'pack', 'receiver', 'servo'] as const

/** How many spans and chords the map has at first, and once one looks at it. */
const COARSE = 8
const FINE = 19

const steps = (low: number, high: number, many: number) =>
  Array.from({ length: many }, (_, k) => Math.round(low + ((high - low) * k) / (many - 1)))

/** What a plane may be begun with, and which span and chord meet its targets. */
export function useSpanChord() {
  const router = useRouter()
  const rack = useQuery({
    queryKey: ['rack'],
    queryFn: () => answered<RackLot[]>(api.GET('/api/v1/rack')),
  })
  const drawer = useQuery({
    queryKey: ['drawer'],
    queryFn: () => answered<DrawerThing[]>(api.GET('/api/v1/drawer')),
  })
  const sheets = computed(() =>
    (rack.data.value ?? []).map((each) => each.lot).filter((lot) => lot.kind === 'foam'),
  )
  const things = computed(() => drawer.data.value ?? [])

  const wants = reactive({
    purpose: 'park',
    layout: 'tractor',
    weight: null as number | null,
    loading: null as number | null,
    thrust: null as number | null,
    pull: null as number | null,
    minutes: null as number | null,
    wing: '',
    body: '',
    folded: true,
    thick: 22 as number | null,
  })
  const range = reactive({ spans: [600, 1500], chords: [120, 280] })
  const chosen = ref(new Set<string>())
  const isTaken = ref(false)

  watch(
    things,
    (all) => {
      if (isTaken.value || !all.length) return
      isTaken.value = true
      const first = ONE_OF.map((kind) => all.find((each) => each.thing.kind === kind)?.thing.id)
      chosen.value = new Set(first.filter((id) => id !== undefined))
    },
    { immediate: true },
  )
  watch(
    sheets,
    (all) => {
      wants.wing ||= all[0]?.id ?? ''
      wants.body ||= all[0]?.id ?? ''
    },
    { immediate: true },
  )

  const suggested = useQuery({
    queryKey: computed(() => ['suggested', wants.purpose, wants.layout]),
    queryFn: () =>
      answered<SuggestedTarget[]>(
        api.GET('/api/v1/beginnings/targets', {
          params: { query: { purpose: wants.purpose, layout: wants.layout } },
        }),
      ),
  })
  watch(
    () => suggested.data.value,
    (told) => {
      wants.loading = told?.find((each) => each.kind === 'wing_loading')?.high ?? wants.loading
      wants.thrust = told?.find((each) => each.kind === 'thrust_to_weight')?.low ?? null
    },
  )

  const start = computed<StartDoc | undefined>(() => {
    if (!wants.wing || !wants.body || !suggested.data.value) return undefined
    const targets: NonNullable<StartDoc['targets']> = []
    if (wants.weight) targets.push({ kind: 'auw', high: wants.weight, source: 'your own limit' })
    if (wants.loading)
      targets.push({ kind: 'wing_loading', high: wants.loading, source: 'as wanted' })
    if (wants.thrust && wants.pull)
      targets.push({ kind: 'thrust_to_weight', low: wants.thrust, source: 'as wanted' })
    const balance = suggested.data.value.find((each) => each.kind === 'balance')
    if (balance) targets.push(balance)
    return {
      purpose: wants.purpose,
      layout: wants.layout,
      targets,
      wing_lot: wants.wing,
      body_lot: wants.body,
      wing_layers: wants.folded ? 2 : 1,
      things: [...chosen.value],
      thrust_gf: wants.pull,
      least_minutes: wants.minutes,
    }
  })

  const asked = computed(() => ({
    start: start.value,
    thick: wants.thick,
    spans: [...range.spans] as [number, number],
    chords: [...range.chords] as [number, number],
  }))
  const settled = refDebounced(asked, 250)

  const ask = (many: number) => {
    const { start: from, thick, spans, chords } = settled.value
    if (!from) throw new Error('nothing to begin with yet')
    return answered<SpanChordMap>(
      api.POST('/api/v1/begin/map', {
        body: {
          ...from,
          spans_mm: steps(...spans, many),
          chords_mm: steps(...chords, many),
          wing_thickness_mm: wants.folded ? thick : null,
        },
      }),
    )
  }
  const coarse = useQuery({
    queryKey: computed(() => ['span-chord', COARSE, settled.value]),
    queryFn: () => ask(COARSE),
    enabled: computed(() => !!settled.value.start),
    retry: false,
    placeholderData: (before) => before,
  })
  /** Refined while one looks: the coarse one stands until it is there. */
  const fine = useQuery({
    queryKey: computed(() => ['span-chord', FINE, settled.value]),
    queryFn: () => ask(FINE),
    enabled: computed(() => coarse.isSuccess.value && !coarse.isPlaceholderData.value),
    retry: false,
  })
  const map = computed(() => fine.data.value ?? coarse.data.value)
  const wrong = computed(() => (coarse.error.value ? whyNot(coarse.error.value) : ''))

  const at = ref<{ span: number; chord: number }>()
  /** The chosen point: the nearest to the hand's, or the likeliest. */
  const point = computed<MapPoint | undefined>(() => {
    const told = map.value
    if (!told) return undefined
    const here = at.value
    if (!here) return told.points[told.best]
    const far = (each: MapPoint) =>
      Math.hypot((each.span_mm - here.span) / 1000, (each.chord_mm - here.chord) / 200)
    return told.points.reduce((best, each) => (far(each) < far(best) ? each : best))
  })

  function press(id: string) {
    const next = new Set(chosen.value)
    if (!next.delete(id)) next.add(id)
    chosen.value = next
  }

  const name = ref('')
  const busy = ref(false)
  const refused = ref('')
  async function begin() {
    if (!start.value || !point.value || busy.value) return
    if (!name.value.trim()) {
      refused.value = 'Give it a name; any name will do.'
      return
    }
    busy.value = true
    refused.value = ''
    try {
      const { span_mm, chord_mm } = point.value
      const told = await answered<Opened>(
        api.POST('/api/v1/begin/here', {
          body: { ...start.value, name: name.value.trim(), span_mm, chord_mm },
        }),
      )
      await router.push({ name: 'plan', params: { id: told.build.id } })
    } catch (error) {
      refused.value = whyNot(error)
    } finally {
      busy.value = false
    }
  }

  return {
    sheets, things, wants, range, chosen, press, map, wrong, at, point, name, busy, refused, begin,
    isFine: computed(() => !!fine.data.value),
  } // prettier-ignore
}
