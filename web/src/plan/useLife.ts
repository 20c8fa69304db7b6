import { answered, api, type NewPart, type Opened } from '../api/client'
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
  const at = (part: string, header: Header) => ({
    path: { build_id: id.value, part_id: part },
    header,
  })
  const whole = (header: Header) => ({ path: { build_id: id.value }, header })
  const root = '/api/v1/builds/{build_id}'

  return {
    repair: (part: string, words: string, added: NewPart[]) =>
      send((header) =>
        answered<Opened>(
          api.POST(`${root}/parts/{part_id}/repair`, {
            params: at(part, header),
            body: { words, added },
          }),
        ),
      ),
    trim: (part: string, words: string, grams: number) =>
      send((header) =>
        answered<Opened>(
          api.POST(`${root}/parts/{part_id}/trim`, {
            params: at(part, header),
            body: { words, grams },
          }),
        ),
      ),
    pocket: (part: string, words: string, pocket: Pocket) =>
      send((header) =>
        answered<Opened>(
          api.POST(`${root}/parts/{part_id}/pocket`, {
            params: at(part, header),
            body: { words, ...pocket },
          }),
        ),
      ),
    replace: (part: string, words: string, fresh: NewPart) =>
      send((header) =>
        answered<Opened>(
          api.POST(`${root}/parts/{part_id}/replace`, {
            params: at(part, header),
            body: { words, part: fresh },
          }),
        ),
      ),
    retire: (part: string, words: string) =>
      send((header) =>
        answered<Opened>(
          api.POST(`${root}/parts/{part_id}/retire`, {
            params: at(part, header),
            body: { words },
          }),
        ),
      ),
    move: (part: string, words: string, to: string) =>
      send((header) =>
        answered<Opened>(
          api.POST(`${root}/parts/{part_id}/move`, {
            params: at(part, header),
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
