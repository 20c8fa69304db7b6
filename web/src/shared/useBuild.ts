import { useQuery, useQueryClient, type QueryClient } from '@tanstack/vue-query'
import { computed, inject, provide, ref, watch, type InjectionKey, type Ref } from 'vue'
import {
  answered,
  api,
  RefusedError,
  type Assessment,
  type Opened,
  type Build,
  type BuildPatch,
  type Part,
  type Correcting,
  type JointTimes,
  type NewJoint,
  type NewPart,
  type Problem,
  type Recorded,
  type TakenBack,
  type Touched,
} from '../api/client'
import { leftOver, untilAnswered } from './acts'
import { fieldCalled } from '../say/fields'
import type { Called } from '../say/refusals'
import { whatWasTurned } from '../say/undo'
import { freshId } from './freshId'
import { outbox } from './outbox'
import { underWay } from './underWay'
import { useUnits } from './units'
import { whyNot } from './useQuantity'
import { useWords } from './useWords'

/** How a build is asked for; the answer is kept under its key for all that show it. */
export function ofBuild(id: string, client: QueryClient) {
  const queryKey = ['build', id]
  return {
    queryKey,
    queryFn: async () => {
      const fresh = await answered<Opened>(
        api.GET('/api/v1/builds/{build_id}', { params: { path: { build_id: id } } }),
      )
      // A fetch that began before a change was kept must not bring back what was before it.
      const known = client.getQueryData<Opened>(queryKey)
      return known && known.revision > fresh.revision ? known : fresh
    },
  }
}

function setUp(id: Ref<string>) {
  const client = useQueryClient()
  const words = useWords()
  const { quantity } = useUnits()
  const key = computed(() => ['build', id.value])
  const query = useQuery({ queryKey: key, queryFn: () => ofBuild(id.value, client).queryFn() })
  const answer = computed(() => query.data.value)
  const build = computed(() => answer.value?.build)
  const revision = computed(() => answer.value?.revision ?? 0)
  /** What would be told with a change that is only tried: it answers everywhere while it lasts. */
  const trial = ref<Assessment>()
  const assessment = computed(() => trial.value ?? answer.value?.assessment)

  const chosen = ref<string | null>(null)
  const loadouts = computed(() => assessment.value?.loadouts ?? [])
  const loadout = computed(
    () => loadouts.value.find((each) => each.id === chosen.value) ?? loadouts.value[0],
  )
  /** The parts that fly with it, and how it balances. */
  const aboard = computed(() => new Set(loadout.value?.aboard))
  const balanced = computed(() =>
    assessment.value?.beam.loadouts.find((each) => each.id === loadout.value?.id),
  )
  function choose(loadout: string) {
    chosen.value = loadout
  }
  function nextLoadout() {
    const at = loadouts.value.findIndex((each) => each.id === loadout.value?.id)
    chosen.value = loadouts.value[(at + 1) % loadouts.value.length]?.id ?? null
  }

  function nameOf(part: string): string {
    return build.value?.parts.find((each) => each.id === part)?.name ?? part
  }

  function keep(fresh: Opened) {
    client.setQueryData<Opened>(key.value, (old) =>
      old && old.revision > fresh.revision ? old : fresh,
    )
  }

  /** What the readings recorded here have moved, by reading. */
  const news = ref(new Map<string, Recorded['news']>())

  /** Take in a reading that was recorded here, without fetching the whole build again. */
  function keepReading(recorded: Recorded) {
    news.value.set(recorded.weighing.id, recorded.news)
    client.setQueryData<Opened>(key.value, (old) => {
      if (!old || old.revision >= recorded.revision) return old
      const others = old.build.weighings.filter((each) => each.id !== recorded.weighing.id)
      return {
        revision: recorded.revision,
        build: { ...old.build, weighings: [...others, recorded.weighing] },
        assessment: recorded.assessment,
      }
    })
  }

  // Changes go one after the other, each to the revision that the last one made.
  let last: Promise<unknown> = Promise.resolve()

  /** Another page changed it, or this one did and word of it came before the answer: what is on its
   * way from here brings the build along. */
  async function catchUp(revision: number) {
    const mine = id.value
    const isBehind = () => mine === id.value && (answer.value?.revision ?? 0) < revision
    if (!isBehind()) return
    await Promise.allSettled([outbox.quiet(mine), last])
    if (isBehind()) void client.invalidateQueries({ queryKey: key.value })
  }

  /** A change that was answered late: kept, or refused because the build has moved on. */
  async function broughtHome(response: Response, mine: string): Promise<boolean> {
    // What waits behind it is made of the build as it is then.
    if (mine === id.value) await client.invalidateQueries({ queryKey: key.value })
    if (response.ok) {
      words.say('The workshop answers again; what was changed meanwhile is kept.')
      return true
    }
    const problem = (await response.json().catch(() => undefined)) as Problem | undefined
    words.complain(new RefusedError(response.status, problem), (field) =>
      fieldCalled(field, build.value),
    )
    return false
  }
  watch(
    id,
    (mine) => {
      for (const late of leftOver(mine)) void late.then((response) => broughtHome(response, mine))
    },
    { immediate: true },
  )

  /** Send a change; true when it was kept. What was refused is said, each field as the pages call
   * it or as it is `called` here, `there` where it was typed, and nothing was changed. */
  function send(
    request: (headers: { 'If-Match': string }) => Promise<Opened>,
    called: Called = () => undefined,
    there?: Ref<string>,
  ): Promise<boolean> {
    const said: Called = (field) => called(field) ?? fieldCalled(field, build.value)
    const ended = underWay()
    const sent = last.then(async () => {
      const mine = id.value
      try {
        keep(await request({ 'If-Match': `"${answer.value?.revision ?? 0}"` }))
        words.hush()
        return true
      } catch (error) {
        if (there && error instanceof RefusedError) there.value = whyNot(error, said)
        else words.complain(error, said)
        // Nothing answered: what was changed waits here until something does.
        const late = error instanceof TypeError ? untilAnswered(mine) : undefined
        ended()
        const response = await late
        if (response) return broughtHome(response, mine)
        void client.invalidateQueries({ queryKey: key.value })
        return false
      } finally {
        ended()
      }
    })
    last = sent
    return sent
  }

  const path = computed(() => ({ build_id: id.value }))
  function present(): Build {
    if (!build.value) throw new Error('The build is not here yet')
    return build.value
  }
  /** A patch is made of the build as it stands when its turn comes, after those before it. */
  const change = (patch: (now: Build) => BuildPatch) =>
    send((header) =>
      answered(
        api.PATCH('/api/v1/builds/{build_id}', {
          params: { path: path.value, header },
          body: patch(present()),
        }),
      ),
    )
  const addPart = (part: NewPart) =>
    send((header) =>
      answered(
        api.POST('/api/v1/builds/{build_id}/parts', {
          params: { path: path.value, header },
          body: part,
        }),
      ),
    )
  /** A part is changed as it stands when the turn of its change comes. */
  const changePart = (part_id: string, made: (now: Part) => NewPart) =>
    send(async (header) => {
      const now = present().parts.find((each) => each.id === part_id)
      if (!now) throw new Error('That part is no longer on the list')
      return answered(
        api.PUT('/api/v1/builds/{build_id}/parts/{part_id}', {
          params: { path: { ...path.value, part_id }, header },
          body: made(now),
        }),
      )
    })
  /** Take the change back that made a revision, whatever came since. */
  const bringBack = (made: number) =>
    send((header) =>
      answered<TakenBack>(
        api.POST('/api/v1/builds/{build_id}/undo', {
          params: { path: path.value, header, query: { made } },
        }),
      ),
    )
  /** Send a change that takes something away; one press brings it back as it was, wherever else it
   * was named. */
  async function sendAway(
    name: string,
    request: (header: { 'If-Match': string }) => Promise<Opened>,
  ): Promise<boolean> {
    let made = 0
    const done = await send(async (header) => {
      const told = await request(header)
      made = told.revision
      return told
    })
    if (done && made) words.removed(name, () => bringBack(made))
    return done
  }
  type Listed = 'surfaces' | 'bodies' | 'bays' | 'loadouts' | 'scales' | 'containers' | 'lots'
  /** Take something off one of the build's lists. */
  const takeOff = (list: Listed, gone: string, name: string) =>
    sendAway(name, (header) => {
      const those: { id: string }[] = present()[list]
      return answered(
        api.PATCH('/api/v1/builds/{build_id}', {
          params: { path: path.value, header },
          body: { [list]: those.filter((each) => each.id !== gone) },
        }),
      )
    })

  /** Remove a part that was never weighed. */
  const removePart = (part: Part) =>
    sendAway(part.name, (header) =>
      answered(
        api.DELETE('/api/v1/builds/{build_id}/parts/{part_id}', {
          params: { path: { ...path.value, part_id: part.id }, header },
        }),
      ),
    )

  /** Take the last change back, or make it again; says what it was. */
  async function turnBack(way: 'undo' | 'redo') {
    let touched: Touched[] = []
    // A reading that is on its way is the last change already.
    await outbox.quiet(id.value)
    const kept = await send(async (header) => {
      const params = { path: path.value, header }
      const told = await answered<TakenBack>(
        way === 'undo'
          ? api.POST('/api/v1/builds/{build_id}/undo', { params })
          : api.POST('/api/v1/builds/{build_id}/redo', { params }),
      )
      touched = told.touched
      return told
    })
    if (kept) words.say(whatWasTurned(way, touched, (grams) => quantity(grams, 'mass')))
  }

  const setAside = (weighing: string, reason: string | null, restore = false) =>
    send(() =>
      answered(
        api.PUT('/api/v1/builds/{build_id}/weighings/{weighing_id}/set-aside', {
          params: { path: { ...path.value, weighing_id: weighing } },
          body: { reason, restore },
        }),
      ),
    )
  /** Several readings for one reason, all or none. */
  const setSeveralAside = (weighings: string[], reason: string | null) =>
    send(() =>
      answered(
        api.PUT('/api/v1/builds/{build_id}/weighings/set-aside', {
          params: { path: path.value },
          body: { weighings, reason },
        }),
      ),
    )
  const accept = (weighing: string, accepted: boolean) =>
    send(() =>
      answered(
        api.PUT('/api/v1/builds/{build_id}/weighings/{weighing_id}/accepted', {
          params: { path: { ...path.value, weighing_id: weighing } },
          body: { accepted },
        }),
      ),
    )

  /** Record a reading in place of another, which stays in the log, set aside. */
  const correct = (weighing: string, right: Omit<Correcting, 'id'>) => {
    const body = { ...right, id: freshId() }
    return send(() =>
      answered(
        api.POST('/api/v1/builds/{build_id}/weighings/{weighing_id}/correction', {
          params: { path: { ...path.value, weighing_id: weighing } },
          body,
        }),
      ),
    )
  }

  const spread = (joint: NewJoint) =>
    send(() =>
      answered(
        api.POST('/api/v1/builds/{build_id}/joints', {
          params: { path: path.value },
          body: joint,
        }),
      ),
    )
  const retime = (joint: string, times: JointTimes) =>
    send(() =>
      answered(
        api.PUT('/api/v1/builds/{build_id}/joints/{joint_id}/times', {
          params: { path: { ...path.value, joint_id: joint } },
          body: times,
        }),
      ),
    )
  const clearJoint = (joint: string) =>
    send(() =>
      answered(
        api.POST('/api/v1/builds/{build_id}/joints/{joint_id}/clear', {
          params: { path: { ...path.value, joint_id: joint } },
        }),
      ),
    )

  return {
    id,
    query,
    build,
    revision,
    assessment,
    loadouts,
    loadout,
    aboard,
    balanced,
    choose,
    nextLoadout,
    trial,
    nameOf,
    news,
    keepReading,
    catchUp,
    send,
    change,
    addPart,
    changePart,
    sendAway,
    takeOff,
    removePart,
    turnBack,
    setAside,
    setSeveralAside,
    accept,
    correct,
    spread,
    retime,
    clearJoint,
  }
}

export type OpenBuild = ReturnType<typeof setUp>

const OPEN: InjectionKey<OpenBuild> = Symbol('build')

/** Open a build for a place and all that is in it. */
export function openBuild(id: Ref<string>): OpenBuild {
  const open = setUp(id)
  provide(OPEN, open)
  return open
}

/** The build that the place has open. */
export function useBuild(): OpenBuild {
  const open = inject(OPEN)
  if (!open) throw new Error('no build is open here')
  return open
}
