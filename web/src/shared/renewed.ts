import type { QueryClient } from '@tanstack/vue-query'

/** Ask anew for what an act has changed. A first answer that is still on its way was made before it
 * and is not waited for. */
export async function renewed(client: QueryClient, queryKey: readonly unknown[]): Promise<void> {
  await client.cancelQueries({ queryKey })
  await client.invalidateQueries({ queryKey })
}
