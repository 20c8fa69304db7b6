import { computed, ref, watch } from 'vue'
import {
  answered,
  api,
  type Drive,
  type Flight,
  type Opened,
  type Run,
  type RunPoint,
} from '../api/client'
import { freshId } from '../shared/freshId'
import { useBuild } from '../shared/useBuild'

/** A pack and a propeller of the drive, the chosen loadout's own until others are chosen. */
export function usePair() {
  const { drive, mine } = useDrive()
  const pack = ref('')
  const propeller = ref('')
  watch(
    [mine, drive],
    () => {
      const all = drive.value
      if (!all?.packs.some((each) => each.id === pack.value))
        pack.value = mine.value?.pack ?? all?.packs[0]?.id ?? ''
      if (!all?.propellers.some((each) => each.id === propeller.value))
        propeller.value = all?.propellers[0]?.id ?? ''
    },
    { immediate: true },
  )
  return { pack, propeller }
}

/** The build's drive as it is listed, what is told of it, and what can be done to it. */
export function useDrive() {
  const { id, build, assessment, loadout, change, send, sendAway } = useBuild()
  const drive = computed(() => build.value?.power ?? null)
  const told = computed(() => assessment.value?.power ?? null)
  const mine = computed(
    () => told.value?.loadouts.find((each) => each.loadout === loadout.value?.id) ?? null,
  )
  /** What the drive is not told without in a loadout; the chosen one's. */
  const lackedBy = (loadout?: string) =>
    told.value?.untold.find((each) => each.loadout === loadout)?.missing ?? null
  const lacks = computed(() => lackedBy(loadout.value?.id))

  /** Keep the drive with something of it changed. */
  function edit(changed: (now: Drive) => Partial<Drive>): Promise<boolean> {
    return change(({ power: now }) => ({ power: now && { ...now, ...changed(now) } }))
  }
  const set = (patch: Partial<Drive>) => edit(() => patch)

  /** List a drive from what the build's parts say. */
  const begin = () =>
    send((header) =>
      answered<Opened>(
        api.POST('/api/v1/builds/{build_id}/power', {
          params: { path: { build_id: id.value }, header },
        }),
      ),
    )

  /** Take a pack or a propeller that nothing was run with off the list; one press brings it back. */
  const takeAway = (kind: 'packs' | 'propellers', gone: { id: string; name: string }) =>
    sendAway(gone.name, (header) => {
      const now = build.value?.power
      const those: { id: string }[] = now?.[kind] ?? []
      return answered<Opened>(
        api.PATCH('/api/v1/builds/{build_id}', {
          params: { path: { build_id: id.value }, header },
          body: { power: now && { ...now, [kind]: those.filter((each) => each.id !== gone.id) } },
        }),
      )
    })

  const addRun = (
    id: string,
    pack: string,
    propeller: string,
    points: RunPoint[],
    restV: number,
    over: Pick<Run, 'lever' | 'lever_doubt'>,
  ) => {
    const run: Run = {
      id,
      at: new Date().toISOString(),
      pack,
      propeller,
      points,
      rest_v_per_cell: restV,
      note: '',
      set_aside: null,
      ...over,
      air_c: null,
      motor_c: null,
      controller_c: null,
      pack_c: null,
    }
    return edit((now) => ({ runs: [...now.runs.filter((each) => each.id !== id), run] }))
  }
  /** Write down after a run how warm things were. */
  const amendRun = (id: string, patch: Partial<Run>) =>
    edit((now) => ({ runs: now.runs.map((run) => (run.id === id ? { ...run, ...patch } : run)) }))

  /** Write a flight down with the chosen loadout's pack and weight. */
  const addFlight = (minutes: number, putBack: number | null) => {
    const flight: Flight = {
      id: `flight-${freshId()}`.slice(0, 60),
      at: new Date().toISOString(),
      pack: mine.value?.pack ?? '',
      minutes,
      put_back_mah: putBack,
      mass_g: loadout.value?.answers.find((each) => each.kind === 'auw')?.value ?? null,
      note: '',
      set_aside: null,
      landing: null,
    }
    return edit((now) => ({ flights: [...now.flights, flight] }))
  }
  const setFlightAside = (id: string, reason: string | null) =>
    edit((now) => ({
      flights: now.flights.map((each) => (each.id === id ? { ...each, set_aside: reason } : each)),
    }))
  const setAside = (id: string, reason: string | null) =>
    edit((now) => ({
      runs: now.runs.map((run) => (run.id === id ? { ...run, set_aside: reason } : run)),
    }))

  return {
    drive,
    told,
    mine,
    lacks,
    lackedBy,
    begin,
    edit,
    set,
    takeAway,
    addRun,
    amendRun,
    setAside,
    addFlight,
    setFlightAside,
  }
}
