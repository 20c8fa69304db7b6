import { answered, api, type NewItem, type Opened } from '../api/client'
import { useBuild } from '../shared/useBuild'

/** A pocket: its sides, its depth or through, and what goes into it [mm]. */
export interface Pocket {
  length_mm: number
  width_mm: number
  depth_mm: number | null
  holds: string | null
}

/** What can be done to a part and to a build over its life; each is kept with the diary entry. */
export function useLife() {
  const { id, send } = useBuild()
  type Header = { 'If-Match': string }
  const at = (item: string, header: Header) => ({
    path: { build_id: id.value, item_id: item },
    header,
  })
  const whole = (header: Header) => ({ path: { build_id: id.value }, header })
  const root = '/api/v1/builds/{build_id}'

  return {
    repair: (item: string, words: string, added: NewItem[]) =>
      send((header) =>
        answered<Opened>(
          api.POST(`${root}/items/{item_id}/repair`, {
            params: at(item, header),
            body: { words, added },
          }),
        ),
      ),
    trim: (item: string, words: string, grams: number) =>
      send((header) =>
        answered<Opened>(
          api.POST(`${root}/items/{item_id}/trim`, {
            params: at(item, header),
            body: { words, grams },
          }),
        ),
      ),
    pocket: (item: string, words: string, pocket: Pocket) =>
      send((header) =>
        answered<Opened>(
          api.POST(`${root}/items/{item_id}/pocket`, {
            params: at(item, header),
            body: { words, ...pocket },
          }),
        ),
      ),
    replace: (item: string, words: string, fresh: NewItem) =>
      send((header) =>
        answered<Opened>(
          api.POST(`${root}/items/{item_id}/replace`, {
            params: at(item, header),
            body: { words, item: fresh },
          }),
        ),
      ),
    retire: (item: string, words: string) =>
      send((header) =>
        answered<Opened>(
          api.POST(`${root}/items/{item_id}/retire`, {
            params: at(item, header),
            body: { words },
          }),
        ),
      ),
    move: (item: string, words: string, to: string) =>
      send((header) =>
        answered<Opened>(
          api.POST(`${root}/items/{item_id}/move`, {
            params: at(item, header),
            body: { words, to },
          }),
        ),
      ),
    finish: (finished: boolean) =>
      send((header) =>
        answered<Opened>(
          api.PUT(`${root}/finished`, { params: whole(header), body: { finished } }),
        ),
      ),
  }
}
