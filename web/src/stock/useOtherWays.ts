import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import {
  answered,
  api,
  type Choosing,
  type Comparison,
  type Faces,
  type Replacements,
} from '../api/client'
import { once } from '../shared/once'
import { useBuild } from '../shared/useBuild'
import { whyNot } from '../shared/useQuantity'
import { useWords } from '../shared/useWords'

const MOST_LOTS = 6

/** What was asked about, and how it would come out. */
export type Alternative = Comparison['alternatives'][number] & { asked: Choosing }

/** Today's answers, and those of each way. */
export interface Compared {
  today: Comparison['today']
  ways: Alternative[]
}

/** Parts to make another way, what may stand in for what they are made of, and how it compares. */
export function useOtherWays() {
  const { id, revision, send } = useBuild()
  const say = useWords()
  const path = computed(() => ({ build_id: id.value }))
  const parts = ref<string[]>([])
  const lots = ref<string[]>([])
  const faces = ref<Faces[]>([])

  const standIns = useQuery({
    queryKey: computed(() => ['replacements', id.value, revision.value, parts.value]),
    queryFn: () =>
      answered<Replacements>(
        api.POST('/api/v1/builds/{build_id}/replacements', {
          params: { path: path.value },
          body: { parts: parts.value },
        }),
      ),
    enabled: computed(() => parts.value.length > 0),
    placeholderData: keepPreviousData,
    retry: false,
  })
  const offered = computed(() => (parts.value.length ? standIns.data.value : undefined))

  // What may not stand in for the parts that were chosen since is not asked about.
  const ways = computed<Choosing[]>(() => {
    const may = standIns.isPlaceholderData.value ? undefined : offered.value
    const some = lots.value.filter((lot) => may?.lots.some((each) => each.id === lot))
    const bare = faces.value.filter((each) => may?.faces.includes(each))
    return [
      ...some.slice(0, MOST_LOTS).map((lot) => ({ parts: parts.value, lots: [lot] })),
      ...bare.map((each) => ({ parts: parts.value, faces: [each] })),
    ]
  })
  const comparison = useQuery({
    queryKey: computed(() => ['alternatives', id.value, revision.value, ways.value]),
    queryFn: async (): Promise<Compared> => {
      const asked = ways.value
      const told = await answered<Comparison>(
        api.POST('/api/v1/builds/{build_id}/alternatives', {
          params: { path: path.value },
          body: {
            parts: parts.value,
            lots: asked.flatMap((way) => way.lots ?? []),
            faces: asked.flatMap((way) => way.faces ?? []),
          },
        }),
      )
      // They come in the order in which they were asked about.
      const found = asked.flatMap((way, at) => {
        const alternative = told.alternatives[at]
        return alternative ? [{ ...alternative, asked: way }] : []
      })
      return { today: told.today, ways: found }
    },
    enabled: computed(() => ways.value.length > 0),
    placeholderData: keepPreviousData,
    retry: false,
  })
  const compared = computed(() =>
    parts.value.length && lots.value.length + faces.value.length
      ? comparison.data.value
      : undefined,
  )
  const wrong = computed(() => {
    const error = standIns.error.value ?? comparison.error.value
    return error ? whyNot(error) : ''
  })

  const adopt = once(async (way: Choosing, called: string) => {
    const done = await send((header) =>
      answered(
        api.POST('/api/v1/builds/{build_id}/alternatives/adopt', {
          params: { path: path.value, header },
          body: way,
        }),
      ),
    )
    if (!done) return
    say.say(`From ${called} from now on.`)
    parts.value = []
  })

  return { parts, lots, faces, offered, compared, wrong, adopt }
}
