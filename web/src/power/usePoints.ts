import { computed, inject, provide, ref, watch, type InjectionKey } from 'vue'
import type { RunPoint } from '../api/client'
import { freshId } from '../shared/freshId'
import { useBuild } from '../shared/useBuild'
import { useDrive, usePair } from './useDrive'

export interface TypedPoint {
  throttle: string
  thrust: string
  amps: string
  volts: string
}

const same = (one: RunPoint, other: RunPoint) =>
  one.throttle === other.throttle &&
  one.thrust_gf === other.thrust_gf &&
  one.pack_a === other.pack_a &&
  one.pack_v === other.pack_v &&
  one.drawn_mah === other.drawn_mah

const freshRun = () => `run-${freshId()}`.slice(0, 60)

/** The points that were taken and are no run yet: they wait in this browser, with what they were
 * taken with. */
function setUp() {
  const { drive, mine, addRun } = useDrive()
  const { id } = useBuild()

  const kept = computed(() => `oaken-scale-run-${id.value}`)
  const points = ref<RunPoint[]>([])
  const { pack, propeller } = usePair()
  /** Points as they were typed, that the workshop has not understood yet. */
  const typed = ref<TypedPoint[]>([])
  /** So many times what the scale shows is the thrust, and how far that may be off. */
  const lever = ref(1)
  const leverDoubt = ref(0)
  /** Which run the points will be: kept late by the workshop, they do not wait here any more. */
  const run = ref(freshRun())
  watch(
    kept,
    (key) => {
      const waits = JSON.parse(localStorage.getItem(key) ?? '{}')
      run.value = waits.run ?? freshRun()
      points.value = waits.points ?? []
      typed.value = waits.typed ?? []
      pack.value = waits.pack ?? pack.value
      propeller.value = waits.propeller ?? propeller.value
      lever.value = waits.lever ?? 1
      leverDoubt.value = waits.leverDoubt ?? 0
    },
    { immediate: true },
  )
  watch(
    [points, typed, pack, propeller, lever, leverDoubt, run],
    () => {
      const waits = {
        points: points.value,
        typed: typed.value,
        pack: pack.value,
        propeller: propeller.value,
        lever: lever.value,
        leverDoubt: leverDoubt.value,
        run: run.value,
      }
      if (points.value.length + typed.value.length)
        localStorage.setItem(kept.value, JSON.stringify(waits))
      else localStorage.removeItem(kept.value)
    },
    { deep: true, flush: 'sync' },
  )

  // What stands beside the rods is what is run next, unless a run is being written down.
  watch(
    () => mine.value?.pack,
    (now) => {
      if (now && !points.value.length) pack.value = now
    },
  )

  async function keepRun() {
    const given = { lever: lever.value, lever_doubt: leverDoubt.value }
    await addRun(run.value, pack.value, propeller.value, points.value, 4.2, given)
  }
  // Points that came after a run that was kept late are the next run's.
  watch(
    () => drive.value?.runs.find((each) => each.id === run.value),
    (there) => {
      if (!there) return
      run.value = freshRun()
      points.value = points.value.filter((point) => !there.points.some((kept) => same(kept, point)))
    },
  )

  return { points, typed, pack, propeller, lever, leverDoubt, keepRun }
}

type Points = ReturnType<typeof setUp>
const POINTS: InjectionKey<Points> = Symbol('points')

/** Set up the points of the open build for the place and all that is in it. */
export function openPoints(): Points {
  const points = setUp()
  provide(POINTS, points)
  return points
}

/** The points that the place has set up. */
export function usePoints(): Points {
  const points = inject(POINTS)
  if (!points) throw new Error('no points are set up here')
  return points
}
