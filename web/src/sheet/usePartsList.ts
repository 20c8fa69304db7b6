import { computed, ref } from 'vue'
import { answered, api, type Opened, type Preview } from '../api/client'
import { once } from '../shared/once'
import { useBuild } from '../shared/useBuild'
import { useWords } from '../shared/useWords'

export type Found = Preview['rows'][number]

/** A file with a list of parts: what it would add, and the adding of what is ticked. */
export function usePartsList() {
  const { id, send } = useBuild()
  const said = useWords()
  const file = ref<File>()
  const told = ref<Preview>()
  const wrong = ref('')
  const isReading = ref(false)
  /** What each column holds where the builder said otherwise, by its place. */
  const chosen = ref(new Map<number, string>())
  const left = ref(new Set<number>())

  let asked = 0
  /** What the file would add, as its columns are taken by now; an answer that comes late is not. */
  async function look() {
    if (!file.value) return
    const turn = ++asked
    wrong.value = ''
    isReading.value = true
    try {
      const column = [...chosen.value].map(([at, what]) => `${at}:${what}`)
      const next = await answered<Preview>(
        api.POST('/api/v1/parts-list', {
          params: { query: { build: id.value, column } },
          body: file.value as unknown as string,
          bodySerializer: (body) => body,
          headers: { 'Content-Type': 'application/octet-stream' },
        }),
      )
      if (turn === asked) told.value = next
    } catch (error) {
      if (turn !== asked) return
      told.value = undefined
      wrong.value = (error as Error).message
    } finally {
      if (turn === asked) isReading.value = false
    }
  }

  function open(next: File) {
    file.value = next
    chosen.value = new Map()
    left.value = new Set()
    return look()
  }

  function take(at: number, what: string) {
    chosen.value.set(at, what)
    return look()
  }

  const fitting = computed(() => (told.value?.rows ?? []).filter((row) => row.why_not === null))
  const ticked = computed(() => fitting.value.filter((row) => !left.value.has(row.line)))
  function tick(row: Found) {
    if (!left.value.delete(row.line)) left.value.add(row.line)
  }

  const keep = once(async () => {
    const parts = ticked.value.map(
      ({ name, assembly, mass_g, pieces, station_mm, side_mm, height_mm }) => ({
        name,
        assembly,
        mass_g,
        pieces,
        station_mm,
        side_mm: side_mm ?? 0,
        height_mm: height_mm ?? 0,
      }),
    )
    const kept = await send((header) =>
      answered<Opened>(
        api.POST('/api/v1/builds/{build_id}/parts-list', {
          params: { path: { build_id: id.value }, header },
          body: { parts },
        }),
      ),
    )
    if (!kept) return
    said.say(`${parts.length} ${parts.length === 1 ? 'part' : 'parts'} taken in.`)
    await look()
  })

  function close() {
    asked++
    isReading.value = false
    file.value = undefined
    told.value = undefined
    wrong.value = ''
  }

  return { file, told, wrong, isReading, left, ticked, open, take, tick, keep, close }
}
