import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import { useLocalStorage, useNow, StorageSerializers } from '@vueuse/core'
import { computed, ref, watch } from 'vue'
import { answered, api, type Build, type DayTold, type Opened } from '../api/client'
import { freshId } from '../shared/freshId'
import { useBuild } from '../shared/useBuild'

/** The order of the day, and what can be done in the minutes that are left. */
export function useDay() {
  const { id, build, send, change } = useBuild()
  const path = computed(() => ({ build_id: id.value }))
  const minutes = ref(20)

  const query = useQuery({
    queryKey: computed(() => ['day', id.value, minutes.value]),
    queryFn: () =>
      answered<DayTold>(
        api.GET('/api/v1/builds/{build_id}/day', {
          params: { path: path.value, query: { minutes: minutes.value } },
        }),
      ),
    placeholderData: keepPreviousData,
    refetchInterval: 60_000,
    refetchOnMount: 'always',
  })
  watch(build, () => void query.refetch())
  const told = computed(() => query.data.value)

  /** The step that is being done, and since when: it stays so when the page is closed. */
  const doing = useLocalStorage<{ build: string; step: string; since: number } | null>(
    'oaken-scale-step',
    null,
    { serializer: StorageSerializers.object },
  )
  const now = useNow({ interval: 5_000 })
  const mine = computed(() => (doing.value?.build === id.value ? doing.value : null))
  const taken = computed(() =>
    mine.value ? Math.max(0, (now.value.getTime() - mine.value.since) / 60_000) : 0,
  )
  function begin(step: string) {
    doing.value = { build: id.value, step, since: Date.now() }
  }

  async function done(step: string) {
    const timed = mine.value?.step === step
    const took = timed ? (Date.now() - (mine.value?.since ?? 0)) / 60_000 : null
    const body = { step, minutes: took && took >= 0.2 ? Math.round(took * 10) / 10 : null }
    const params = { path: path.value }
    const kept = await send(() =>
      answered<Opened>(api.POST('/api/v1/builds/{build_id}/day/done', { params, body })),
    )
    // What was begun meanwhile goes on.
    if (kept && mine.value?.step === step) doing.value = null
  }
  const undone = (step: string) =>
    send(() =>
      answered<Opened>(
        api.POST('/api/v1/builds/{build_id}/day/undone', {
          params: { path: path.value },
          body: { step },
        }),
      ),
    )

  type Day = Build['day']
  /** Change the day as it is when the turn of this change comes. */
  const keep = (patch: (day: Day) => Partial<Day>) =>
    change(({ day }) => ({ day: { ...day, ...patch(day) } }))

  /** The order as it was moved last, until it is told again. */
  let moved: string[] | undefined
  /** Move a step by hand: the order that is seen becomes the builder's. */
  async function move(step: string, by: number) {
    const order = [...(moved ?? (told.value?.slots ?? []).map((slot) => slot.step.id))]
    const at = order.indexOf(step)
    const to = Math.min(Math.max(at + by, 0), order.length - 1)
    if (!build.value || at < 0 || to === at) return
    order.splice(to, 0, ...order.splice(at, 1))
    moved = order
    await keep(() => ({ order }))
    await query.refetch()
    if (moved === order) moved = undefined
  }
  const asReckoned = () => keep(() => ({ order: [] }))

  function add(name: string, took: number) {
    const step = { id: freshId(), name, minutes: took }
    return keep((day) => ({ own: [...day.own, step] }))
  }
  const drop = (step: string) =>
    keep((day) => ({ own: day.own.filter((each) => each.id !== step) }))

  const isMoved = computed(() => (build.value?.day.order.length ?? 0) > 0)
  return {
    query, told, minutes, mine, taken, begin, done, undone, move, asReckoned, isMoved, add, drop,
  } // prettier-ignore
}
