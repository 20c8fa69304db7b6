import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, onBeforeUnmount, ref, watch } from 'vue'
import { answered, api, type StandState } from '../api/client'
import { listenTo } from '../shared/stream'
import { useBuild } from '../shared/useBuild'
import { useWords } from '../shared/useWords'
import { usePoints } from './usePoints'

interface StandLine {
  throttle: number | null
  thrust_gf: number | null
  pack_a: number | null
  pack_v: number | null
  drawn_mah: number | null
  gone: boolean
}
interface Shown {
  line: StandLine
  expected_gf: number | null
  expected_sd_gf: number | null
}

/** So long the propeller takes to follow the throttle [ms]. */
const SETTLES = 1500

/** The thrust stand of the open build: switched on, read as it happens, its points kept. */
export function useStand() {
  const { id, revision } = useBuild()
  const { points, pack, propeller } = usePoints()
  const words = useWords()
  const client = useQueryClient()
  const at = computed(() => ({ params: { path: { build_id: id.value } } }))
  const key = computed(() => ['stand', id.value])
  const query = useQuery({
    queryKey: computed(() => [...key.value, revision.value]),
    queryFn: () => answered<StandState>(api.GET('/api/v1/builds/{build_id}/stand', at.value)),
    refetchOnMount: 'always',
  })
  const state = computed(() => query.data.value)
  const on = computed(() => state.value?.on ?? false)

  const shows = ref<Shown>()
  const line = computed(() => shows.value?.line)
  const settled = ref(true)
  let stop: (() => void) | undefined
  watch(
    [on, id],
    () => {
      stop?.()
      shows.value = undefined
      if (!on.value) return
      stop = listenTo(id.value, (event, data) => {
        if (event === 'stand') shows.value = JSON.parse(data)
      })
    },
    { immediate: true },
  )
  onBeforeUnmount(() => stop?.())

  async function ask(body: { on?: boolean; pack?: string; propeller?: string; throttle?: number }) {
    try {
      const told = await answered<StandState>(
        api.PUT('/api/v1/builds/{build_id}/stand', { ...at.value, body }),
      )
      client.setQueryData([...key.value, revision.value], told)
      words.hush()
    } catch (error) {
      words.complain(error)
    }
  }

  // As it was set here last, whether the workshop has answered or not.
  const asked = ref(0)
  watch(
    () => state.value?.throttle,
    (told) => {
      if (settled.value && told !== undefined) asked.value = told
    },
    { immediate: true },
  )
  let moved: ReturnType<typeof setTimeout> | undefined
  let turn: Promise<void> = Promise.resolve()
  const switchOn = () => {
    asked.value = 0
    return ask({ on: true, pack: pack.value, propeller: propeller.value })
  }
  const switchOff = () => ask({ on: false })
  function throttle(setting: number) {
    asked.value = Math.min(Math.max(setting, 0), 1)
    settled.value = false
    clearTimeout(moved)
    moved = setTimeout(() => (settled.value = true), SETTLES)
    // Of several that wait only the newest is sent.
    const mine = asked.value
    turn = turn.then(() => (mine === asked.value ? ask({ throttle: mine }) : undefined))
  }
  onBeforeUnmount(() => clearTimeout(moved))

  /** Keep what the stand shows as a point of the run. */
  function keep() {
    const shown = line.value
    if (!on.value) return
    if (!shown) {
      words.say('Nothing has come from the stand yet.')
      return
    }
    if (shown.gone) {
      words.say('The stand does not answer: is its cable in? The points so far are kept.')
      return
    }
    const setting = shown.throttle ?? asked.value
    if (setting <= 0) {
      words.say('Open the throttle first: at rest there is nothing to keep.')
      return
    }
    if (!settled.value) {
      words.say('It is still spinning up: keep the point when it runs steadily.')
      return
    }
    points.value.push({
      throttle: setting,
      thrust_gf: shown.thrust_gf,
      pack_a: shown.pack_a,
      pack_v: shown.pack_v,
      drawn_mah: shown.drawn_mah ?? 0,
    })
    words.say(`Kept: the point at ${Math.round(100 * setting)} %.`)
  }

  return { state, on, shows, line, asked, settled, switchOn, switchOff, throttle, keep }
}
