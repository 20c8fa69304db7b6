import { computed, inject, provide, ref, watch, type InjectionKey } from 'vue'
import {
  answered,
  api,
  RefusedError,
  type NewWeighing,
  type Pan,
  type PanState,
} from '../api/client'
import { useWeighNext } from '../say/weighNext'
import { freshId } from '../shared/freshId'
import { useBuild } from '../shared/useBuild'
import { useLive } from '../shared/useLive'
import { useUsualSample } from '../shared/usualSample'
import { useWords } from '../shared/useWords'
import { useOutbox } from '../shared/useOutbox'

/** The turn of a pan whose change the workshop has not answered yet: no line was read in it. */
const UNTOLD = -1

/** What lies on a pan, in whatever order it was put there. */
const contents = (pan: Pan) =>
  [
    ...pan.loads.map((load) => `${load.count} ${load.part}`),
    ...pan.samples.map((sample) => `${sample.amount} of ${sample.lot}`),
  ]
    .sort()
    .join()

const EMPTY: Pan = { loads: [], samples: [], known_g: 0 }

function setUp() {
  const { id, build, assessment, keepReading, catchUp, setAside, nameOf } = useBuild()
  const words = useWords()
  const live = useLive(id, catchUp)
  const told = ref<PanState>()

  /** What is on the pan: at once as pressed here, then as the server has it. */
  const pan = computed(() => told.value?.loads ?? EMPTY)
  const tared = computed(() => told.value?.tared ?? EMPTY)
  const expected = computed(() => told.value?.expected ?? null)
  const simulated = computed(() => told.value?.simulated ?? false)
  const isRead = computed(() => told.value?.live ?? false)
  const note = computed(() => told.value?.note ?? null)
  const unreadScale = computed(() => told.value?.unread ?? null)
  const scale = computed(() => build.value?.scales.find((each) => each.id === told.value?.scale))
  const isEmpty = computed(() => pan.value.loads.length + pan.value.samples.length === 0)

  const path = computed(() => ({ build_id: id.value }))

  // What is asked of the pan and the readings taken from it go one after the other, as they were
  // pressed; of several wishes for the pan that wait only the newest is sent.
  let wish: (() => Promise<PanState>) | undefined
  let line: Promise<void> = Promise.resolve()
  let steps = 0
  function inLine(step: (before: Promise<void>) => Promise<void>) {
    steps++
    line = step(line).finally(() => {
      steps--
      hear(live.pan.value)
    })
  }
  function ask(request: () => Promise<PanState>) {
    wish = request
    inLine((before) => before.then(() => asked(request)))
  }

  async function asked(request: () => Promise<PanState>) {
    if (wish !== request) return
    try {
      const state = await request()
      least = state.turn
      if (wish === request) told.value = state
    } catch (error) {
      words.complain(error)
      if (error instanceof RefusedError) told.value = live.pan.value
    }
    if (wish === request) wish = undefined
  }
  // Word of the pan may come late, by as many turns as were taken meanwhile. While anything is in
  // line it waits; then only word of a turn after the last one answered is heard. What was recorded
  // has left the pan in the turn after the one in which it lay there; while its reading waits for
  // the workshop to answer, it does not come back beside what is put on next.
  let least = -1
  let left = ''
  function hear(state: PanState | undefined) {
    if (steps > 0 || !state || state.turn < least) return
    if (left && contents(state.loads) === left) return
    left = ''
    least = state.turn
    told.value = state
  }
  watch(live.pan, (state) => {
    hear(state)
    if (state) return
    told.value = undefined
    least = -1
  })
  // A workshop that was started again counts its turns anew.
  watch(live.connected, () => (least = -1), { flush: 'sync' })

  function put(next: Pan) {
    left = ''
    const first = build.value?.scales[0]
    const before = told.value ?? {
      scale: first?.id ?? 'scale',
      simulated: first?.simulated ?? false,
      live: Boolean(first?.simulated || first?.port),
      unread: null,
      tared: EMPTY,
    }
    told.value = { ...before, loads: next, expected: null, note: null, turn: UNTOLD }
    ask(() =>
      answered(
        api.PUT('/api/v1/builds/{build_id}/pan', { params: { path: path.value }, body: next }),
      ),
    )
  }

  const isOn = (part: string) => pan.value.loads.some((load) => load.part === part)

  /** A part and what was done to it are one piece now. */
  const asItIsNow = (part: string) => [
    part,
    ...(build.value?.parts ?? [])
      .filter((each) => each.host === part && !each.retired)
      .map((each) => each.id),
  ]

  function press(part: string) {
    const piece = asItIsNow(part)
    const rest = pan.value.loads.filter((load) => !piece.includes(load.part))
    const added = piece.map((each) => ({ part: each, count: 1 }))
    put({ ...pan.value, loads: isOn(part) ? rest : [...rest, ...added] })
  }

  function pressAll(parts: string[]) {
    const all = parts.every(isOn)
    const rest = pan.value.loads.filter((load) => !parts.includes(load.part))
    const added = parts.map((part) => ({ part, count: 1 }))
    put({ ...pan.value, loads: all ? rest : [...rest, ...added] })
  }

  const usual = useUsualSample()
  function sampleOf(id: string): Pan['samples'][number] {
    const lot = build.value?.lots.find((each) => each.id === id)
    return { lot: id, amount: usual(lot?.unit ?? 'dm2').amount }
  }

  function pressSample(lot: string) {
    const on = pan.value.samples.some((sample) => sample.lot === lot)
    const others = pan.value.samples.filter((sample) => sample.lot !== lot)
    put({ ...pan.value, samples: on ? others : [...others, sampleOf(lot)] })
  }

  function count(part: string, times: number) {
    const loads = pan.value.loads.map((load) =>
      load.part === part ? { part, count: times } : load,
    )
    put({ ...pan.value, loads })
  }

  function amount(lot: string, size: number) {
    const samples = pan.value.samples.map((each) =>
      each.lot === lot ? { lot, amount: size } : each,
    )
    put({ ...pan.value, samples })
  }

  function act(verb: 'tare' | 'clear') {
    armed.value = false
    if (told.value) told.value = { ...told.value, turn: UNTOLD }
    ask(() =>
      answered(api.POST(`/api/v1/builds/{build_id}/${verb}`, { params: { path: path.value } })),
    )
  }

  const outbox = useOutbox(id, keepReading, (error, reading) => {
    words.complain(error)
    if (!reading) return
    // Refused: what was typed goes back into its field; what was weighed still lies on the pan.
    unread.value = reading.typed ?? ''
    left = ''
    ask(() => answered(api.GET('/api/v1/builds/{build_id}/pan', { params: { path: path.value } })))
  })

  /** What was typed and could not be read, to be put back into its field. */
  const unread = ref('')

  /** Record a reading of what is on the pan; the tags go to the roll at once. */
  function record(reading: number) {
    return send({ reading_g: reading, typed: '' })
  }

  /** Record what was typed as it stands; the workshop understands it when it keeps it. */
  function recordTyped(typed: string, unit: string) {
    unread.value = ''
    return send({ typed, unit })
  }

  function send(shown: Pick<NewWeighing, 'reading_g' | 'typed' | 'unit'>) {
    const on = told.value
    if (!on || isEmpty.value) {
      words.say('The pan is empty: press a tag to put it on, then record.')
      return false
    }
    words.hush()
    const sent = {
      id: freshId(),
      at: new Date().toISOString(),
      scale: on.scale,
      ...shown,
      pan: on.loads,
    }
    // Recording clears the pan, so it goes after what was last asked of the pan, and before what is
    // asked next.
    left = contents(on.loads)
    inLine((before) =>
      outbox.post(sent, before).then(() => {
        least++
      }),
    )
    wish = undefined
    told.value = { ...on, loads: EMPTY, tared: EMPTY, expected: null, turn: UNTOLD }
    return true
  }

  // Pressed while the pan still moves, or before the scale has felt what was put on it, Record waits
  // for it to come to rest.
  const armed = ref(false)
  const atRest = computed(
    () => live.reading.value?.state === 'steady' && live.reading.value.turn === told.value?.turn,
  )

  function recordSteady() {
    const shown = live.reading.value
    if (isEmpty.value) {
      record(0)
      return
    }
    if (shown?.state === 'gone') {
      words.say('The scale does not answer: is its cable in? What is on the pan stays on the list.')
      return
    }
    if (!isRead.value) {
      words.say('This scale is read by eye: type what it shows, then press Enter.')
      return
    }
    if (shown?.state === 'over') {
      words.say('Over what this scale can weigh: take something off.')
      return
    }
    armed.value = !atRest.value
    if (armed.value || !shown) return
    if (shown.reading_g <= 0) words.say('The scale has not felt it: weigh several together.')
    else record(shown.reading_g)
  }

  watch(atRest, (rests) => {
    if (armed.value && rests) recordSteady()
  })

  const readings = computed(() => [...(build.value?.weighings ?? [])].reverse())

  async function takeBack() {
    const last = readings.value.find((each) => each.set_aside === null)
    if (!last) {
      words.say('There is no reading to take back.')
      return
    }
    if (await setAside(last.id, 'taken back', true)) {
      words.say(
        last.corrects
          ? 'Taken back: the reading before it speaks again.'
          : 'Taken back: the reading stays on the roll, set aside.',
      )
    }
  }

  const { what: whatNext, why: whyNext } = useWeighNext()
  const next = computed(() => assessment.value?.weigh_next[0])
  async function putNext() {
    await line // the reading just taken has its say in what to weigh next
    const best = next.value
    if (best?.scale)
      words.say(`Put a known weight on: ${whyNext(best)} Its place is the Plan, under Scales.`)
    else if (best?.run)
      words.say(`Take ${whatNext(best)}. ${whyNext(best)} Its place is Power, key 6.`)
    else if (!best) words.say('Nothing left to weigh would tell more.')
    else if (best.parts.length)
      put({ ...EMPTY, loads: best.parts.map((part) => ({ part, count: 1 })) })
    else if (best.part) put({ ...EMPTY, loads: [{ part: best.part, count: 1 }] })
    else if (best.lot) put({ ...EMPTY, samples: [sampleOf(best.lot)] })
  }

  return {
    ...live,
    pan,
    tared,
    expected,
    simulated,
    isRead,
    note,
    unreadScale,
    scale,
    isEmpty,
    isOn,
    put,
    press,
    pressAll,
    pressSample,
    count,
    amount,
    tare: () => act('tare'),
    clear: () => act('clear'),
    record,
    recordTyped,
    unread,
    recordSteady,
    armed,
    atRest,
    takeBack,
    next,
    putNext,
    readings,
    waiting: outbox.waiting,
    nameOf,
  }
}

export type Bench = ReturnType<typeof setUp>

const BENCH: InjectionKey<Bench> = Symbol('bench')

/** Set up the bench of the open build for the place and all that is in it. */
export function openBench(): Bench {
  const bench = setUp()
  provide(BENCH, bench)
  return bench
}

/** The bench that the place has set up. */
export function useBench(): Bench {
  const bench = inject(BENCH)
  if (!bench) throw new Error('no bench is set up here')
  return bench
}
