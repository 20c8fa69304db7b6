import { useQuery } from '@tanstack/vue-query'
import { answered, api, type Beginnings } from '../api/client'

/** What a build can begin from: asked for once, and kept. */
export function useBeginnings() {
  return useQuery({
    queryKey: ['beginnings'],
    queryFn: () => answered<Beginnings>(api.GET('/api/v1/beginnings')),
    staleTime: Infinity,
  }).data
}
