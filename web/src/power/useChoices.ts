import { useQuery } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { answered, api, type Choice, type Trying } from '../api/client'
import { useBuild } from '../shared/useBuild'

export type Listed =
  | { kind: 'pack'; listing: NonNullable<Trying['packs']>[number] }
  | { kind: 'motor'; listing: NonNullable<Trying['motors']>[number] }

/** All that might fly in the place of the chosen loadout's pack and motor. */
export function useChoices() {
  const { id, revision, loadout, build, send } = useBuild()
  const listed = ref<Listed[]>([])

  const body = computed<Trying>(() => {
    return {
      loadout: build.value?.loadouts.length ? (loadout.value?.id ?? null) : null,
      packs: listed.value.flatMap((each) => (each.kind === 'pack' ? [each.listing] : [])),
      motors: listed.value.flatMap((each) => (each.kind === 'motor' ? [each.listing] : [])),
    }
  })
  const query = useQuery({
    queryKey: ['choices', id, revision, body],
    refetchOnMount: 'always',
    placeholderData: (before: Choice[] | undefined) => before,
    queryFn: () =>
      answered<Choice[]>(
        api.POST('/api/v1/builds/{build_id}/power/choices', {
          params: { path: { build_id: id.value } },
          body: body.value,
        }),
      ),
  })

  /** Take a pack as a loadout of its own, beside the chosen one. */
  function adopt(choice: Choice) {
    const beside = body.value.loadout ?? null
    const pack = body.value.packs?.find((each) => each.name === choice.pack) ?? null
    return send((header) =>
      answered(
        api.POST('/api/v1/builds/{build_id}/power/adopted', {
          params: { path: { build_id: id.value }, header },
          body:
            choice.thing === null
              ? { loadout: beside, pack }
              : { loadout: beside, thing: choice.thing },
        }),
      ),
    )
  }

  return { choices: computed(() => query.data.value ?? []), error: query.error, listed, adopt }
}
