import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { answered, api, type BuyingList, type Freight, type Wanted } from '../api/client'
import { freshId } from '../shared/freshId'
import { whileUnderWay } from '../shared/underWay'
import { whyNot } from '../shared/useQuantity'
import { useWords } from '../shared/useWords'

const KEY = ['buying']
const NO_FREIGHT: Freight = { shop: '', cost: 0, free_from: null }

/** What is to be bought, and the verbs of the list; the answer to each is the whole list. */
export function useBuying() {
  const client = useQueryClient()
  const words = useWords()
  const query = useQuery({
    queryKey: KEY,
    queryFn: () => answered<BuyingList>(api.GET('/api/v1/buying')),
    refetchOnMount: 'always',
  })
  const wrong = ref('')

  // One act after the other, each made of what the last one left.
  let last: Promise<unknown> = Promise.resolve()
  function act(ask: () => Promise<BuyingList>): Promise<boolean> {
    const kept = last.then(async () => {
      wrong.value = ''
      try {
        const fresh = await ask()
        // A first answer that is still on its way was made before this.
        await client.cancelQueries({ queryKey: KEY })
        client.setQueryData(KEY, fresh)
        return true
      } catch (error) {
        wrong.value = whyNot(error)
        return false
      }
    })
    last = kept
    return whileUnderWay(kept)
  }

  const put = ({ id, ...rest }: Wanted) =>
    answered<BuyingList>(
      api.PUT('/api/v1/buying/wanted/{wanted_id}', {
        params: { path: { wanted_id: id } },
        body: rest,
      }),
    )
  const write = (wanted: Wanted) => act(() => put(wanted))
  /** Change one thing of the list as it is when the turn of this change comes. */
  const change = (wanted: Wanted, made: (now: Wanted) => Partial<Wanted>) =>
    act(() => {
      const now = list.value?.wanted.find((each) => each.id === wanted.id) ?? wanted
      return put({ ...now, ...made(now) })
    })
  const add = (name: string, count: number) =>
    write({ id: freshId(), name, count, offers: [], is_had: false })
  /** What a shop asks for bringing things, changed as it stands when the turn of that comes. */
  const bring = (shop: string, patch: Partial<Freight>) =>
    act(() => {
      const now = shops.value.find((each) => each.shop === shop) ?? NO_FREIGHT
      const body = { ...now, shop, ...patch }
      return answered<BuyingList>(api.PUT('/api/v1/buying/freight', { body }))
    })
  async function strike(gone: Wanted) {
    const isGone = await act(() =>
      answered<BuyingList>(
        api.DELETE('/api/v1/buying/wanted/{wanted_id}', {
          params: { path: { wanted_id: gone.id } },
        }),
      ),
    )
    if (isGone) words.removed(gone.name, () => write(gone))
  }

  const list = computed(() => query.data.value)
  /** Every shop that is spoken of, with what it costs to have things brought. */
  const shops = computed(() => {
    const told = list.value
    const names = [...(told?.wanted ?? []), ...(told?.needed ?? [])].flatMap((each) =>
      each.offers.map((offer) => offer.shop),
    )
    return [...new Set(names.filter(Boolean))]
      .sort()
      .map((shop) => told?.freights.find((each) => each.shop === shop) ?? { ...NO_FREIGHT, shop })
  })

  return { query, list, shops, wrong, change, add, bring, strike }
}
