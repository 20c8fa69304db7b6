import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { renewed } from './renewed'
import { computed, watch } from 'vue'
import { answered, api, type Lot, type NewLot, type RackLot } from '../api/client'
import { useBuild } from './useBuild'
import { whileUnderWay } from './underWay'
import { useWords } from './useWords'

export const KINDS: { value: Lot['kind']; title: string; unit: Lot['unit'] }[] = [
  { value: 'foam', title: 'foam sheet', unit: 'dm2' },
  { value: 'adhesive', title: 'adhesive', unit: 'm' },
  { value: 'tape', title: 'tape', unit: 'm' },
  { value: 'rod', title: 'rod, tube, strip', unit: 'm' },
  { value: 'film', title: 'film', unit: 'dm2' },
  { value: 'paint', title: 'paint', unit: 'dm2' },
  { value: 'plywood', title: 'plywood', unit: 'dm2' },
  { value: 'wood', title: 'wood', unit: 'm' },
  { value: 'card', title: 'plastic card', unit: 'dm2' },
  { value: 'other', title: 'something else', unit: 'piece' },
]
export const FACES = { both: 'both papers', one: 'one paper off', none: 'no paper' } as const

/** The rack that all builds share, and what this build took from it. */
export function useRack() {
  const { id, build, assessment, send, change, takeOff } = useBuild()
  const client = useQueryClient()
  const words = useWords()
  const rack = useQuery({
    queryKey: ['rack'],
    queryFn: () => answered<RackLot[]>(api.GET('/api/v1/rack')),
    refetchOnMount: 'always',
  })
  const renew = () => void renewed(client, ['rack'])
  watch(() => build.value?.weighings.length, renew)

  const lots = computed(() => build.value?.lots ?? [])
  const told = computed(() => new Map(assessment.value?.lots.map((lot) => [lot.id, lot])))
  const taken = computed(() => new Set(lots.value.map((lot) => lot.rack)))
  const others = computed(() =>
    (rack.data.value ?? []).filter((each) => !taken.value.has(each.lot.id)),
  )
  const builds = computed(
    () => new Map((rack.data.value ?? []).map((each) => [each.lot.id, each.builds])),
  )

  /** Take a lot of the rack into this build. */
  async function take(rackId: string): Promise<boolean> {
    const done = await send((header) =>
      answered(
        api.POST('/api/v1/builds/{build_id}/lots', {
          params: { path: { build_id: id.value }, header },
          body: { rack: rackId },
        }),
      ),
    )
    renew()
    return done
  }

  /** Hang a new lot on the rack and take it into this build. */
  async function hang(lot: NewLot): Promise<boolean> {
    try {
      const hung = await whileUnderWay(answered<RackLot>(api.POST('/api/v1/rack', { body: lot })))
      return await take(hung.lot.id)
    } catch (error) {
      words.complain(error)
      return false
    }
  }

  async function putOnRack(lot: string) {
    await send((header) =>
      answered(
        api.PUT('/api/v1/builds/{build_id}/lots/{lot_id}/rack', {
          params: { path: { build_id: id.value, lot_id: lot }, header },
        }),
      ),
    )
    renew()
  }

  /** Change what is said of a lot; of one on the rack, in every build. */
  async function describe(lot: string, patch: Partial<Lot>) {
    await change((now) => ({
      lots: now.lots.map((each) => (each.id === lot ? { ...each, ...patch } : each)),
    }))
    renew()
  }

  async function leave(lot: string) {
    const name = lots.value.find((each) => each.id === lot)?.name ?? lot
    await takeOff('lots', lot, name)
    renew()
  }

  return { rack, lots, told, others, builds, take, hang, putOnRack, describe, leave }
}

export type Rack = ReturnType<typeof useRack>
