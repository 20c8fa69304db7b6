import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, inject, onBeforeUnmount, provide, watch, type InjectionKey } from 'vue'
import {
  answered,
  api,
  type AtTheField,
  type Control,
  type Opened,
  type ReadyLine,
  type Schemas,
} from '../api/client'
import { freshId } from '../shared/freshId'
import { useBuild } from '../shared/useBuild'
import { onHome, outOfReach, postEntry, waitingEntries } from '../shared/entries'

type Of<Kind extends string> = Extract<Schemas['ThrowEntry'], { entry: Kind }>

function setUp() {
  const client = useQueryClient()
  const { id, build, revision, loadout, send, sendAway } = useBuild()
  const key = computed(() => ['field', id.value])
  const query = useQuery({
    queryKey: key,
    queryFn: () =>
      answered<AtTheField>(
        api.GET('/api/v1/builds/{build_id}/field', { params: { path: { build_id: id.value } } }),
      ),
    refetchInterval: 600_000,
  })
  watch(revision, (now) => {
    if (now > (query.data.value?.revision ?? 0))
      void client.invalidateQueries({ queryKey: key.value })
  })
  const stop = onHome((of, fresh) => {
    client.setQueryData<AtTheField>(['field', of], (old) =>
      old && old.revision > fresh.revision ? old : fresh,
    )
  })
  onBeforeUnmount(stop)

  const field = computed(() => query.data.value)
  const waiting = computed(() =>
    waitingEntries.value.filter((each) => each.build === id.value && each.refused === undefined),
  )
  const refused = computed(() =>
    waitingEntries.value.filter((each) => each.build === id.value && each.refused !== undefined),
  )
  const told = computed(() => {
    const all = field.value?.told.loadouts ?? []
    return all.find((each) => each.id === loadout.value?.id) ?? all[0]
  })

  /** The lines as the workshop told them, with what was ticked here since. */
  const lines = computed<ReadyLine[]>(() =>
    (told.value?.ready.lines ?? []).map((line) => {
      const mine = waiting.value.flatMap(({ entry }) =>
        entry.entry === 'tick' && entry.line === line.id && entry.loadout === told.value?.id
          ? [entry]
          : [],
      )
      const last = mine.at(-1)
      if (!last) return line
      return last.done
        ? { ...line, closed_at: last.at, closed_with: told.value?.id ?? null, reason: null }
        : {
            ...line,
            reason: {
              why: 'unticked',
              subject: '',
              at: last.at,
              amount: null,
              unit: '',
              words: '',
              changed: [],
            },
          }
    }),
  )
  const open = computed(() => lines.value.filter((line) => line.reason !== null))

  /** Controls as they are set now, here. */
  /** Controls with what was bent here since. */
  function asBent(those: Control[]): Control[] {
    const set = new Map<string, number>()
    for (const { entry } of waiting.value)
      if (entry.entry === 'bent' || entry.entry === 'throw')
        for (const each of entry.settings ?? []) set.set(each.control, each.mm)
    return those.map((each) => ({ ...each, set_mm: set.get(each.id) ?? each.set_mm }))
  }
  const controls = computed(() => asBent(field.value?.log.controls ?? []))
  const throws = computed(() => {
    const kept = (field.value?.log.throws ?? []).filter((each) => each.loadout === told.value?.id)
    const here = waiting.value.flatMap(({ entry }) =>
      entry.entry === 'throw' && !kept.some((each) => each.id === entry.id) ? [entry] : [],
    )
    return [
      ...kept.map((each) => ({ ...each, waits: false })),
      ...here.map((each) => ({ ...each, waits: true })),
    ]
  })

  const now = () => new Date().toISOString()
  const post = (entry: Parameters<typeof postEntry>[1]) => postEntry(id.value, entry)

  function tick(line: ReadyLine, done: boolean) {
    post({
      entry: 'tick',
      id: freshId(),
      at: now(),
      line: line.id,
      loadout: told.value?.id ?? null,
      done,
      stance: told.value?.ready.stance ?? '',
      about: line.about,
    })
  }
  function bend(control: string, mm: number) {
    post({ entry: 'bent', settings: [{ control, mm }] })
  }
  function bendAll(settings: { control: string; mm: number }[]) {
    post({ entry: 'bent', settings })
  }
  function keepThrow(thrown: Omit<Of<'throw'>, 'entry' | 'id' | 'at' | 'loadout' | 'settings'>) {
    const cg = told.value?.cg_mm ?? null
    const auw = told.value?.auw_g ?? null
    post({
      ...thrown,
      entry: 'throw',
      id: freshId(),
      at: now(),
      loadout: told.value?.id ?? null,
      settings: controls.value.map((each) => ({ control: each.id, mm: each.set_mm })),
      auw_g: auw === null ? null : +auw.toFixed(1),
      cg_mm: cg === null ? null : +cg.toFixed(1),
    })
  }
  function keepFlight(flight: Omit<Schemas['FlightEntry'], 'entry' | 'id' | 'at'>) {
    post({ ...flight, entry: 'flight', id: freshId(), at: now() })
  }
  function keepNote(kind: Schemas['NoteKind'], words: string, due: string | null = null) {
    post({ entry: 'note', id: freshId(), at: now(), kind, words, due, done: false })
  }
  function addLine(words: string) {
    post({ entry: 'own_line', id: freshId(), words })
  }
  function setAside(what: string, reason: string | null) {
    post({ entry: 'set_aside', id: what, reason })
  }

  type NewControl = Schemas['NewControl']
  type Made = (now: NewControl[]) => NewControl[]
  /** The controls are changed as they stand when the turn of that comes. */
  const putControls = (header: { 'If-Match': string }, made: Made) =>
    answered<Opened>(
      api.PUT('/api/v1/builds/{build_id}/field/controls', {
        params: { path: { build_id: id.value }, header },
        body: { controls: made(asBent(build.value?.field.controls ?? [])) },
      }),
    )
  const setControls = (made: Made) => send((header) => putControls(header, made))
  const dropControl = (gone: Control) =>
    sendAway(gone.name, (header) =>
      putControls(header, (now) => now.filter((each) => each.id !== gone.id)),
    )
  const setShim = (surface: string, shim_mm: number) =>
    send((header) =>
      answered<Opened>(
        api.PUT('/api/v1/builds/{build_id}/field/shim', {
          params: { path: { build_id: id.value }, header },
          body: { surface, shim_mm },
        }),
      ),
    )
  const mend = (body: Schemas['Crash']) =>
    send((header) =>
      answered<Opened>(
        api.POST('/api/v1/builds/{build_id}/crash', {
          params: { path: { build_id: id.value }, header },
          body,
        }),
      ),
    )

  return {
    id,
    query,
    build,
    field,
    told,
    lines,
    open,
    controls,
    throws,
    waiting,
    refused,
    outOfReach,
    tick,
    bend,
    bendAll,
    keepThrow,
    keepFlight,
    keepNote,
    addLine,
    setAside,
    setControls,
    dropControl,
    setShim,
    mend,
  }
}

export type OpenField = ReturnType<typeof setUp>

const OPEN: InjectionKey<OpenField> = Symbol('field')

/** Open the field for its place and all that is in it. */
export function openField(): OpenField {
  const open = setUp()
  provide(OPEN, open)
  return open
}

/** The field that the place has open. */
export function useField(): OpenField {
  const open = inject(OPEN)
  if (!open) throw new Error('no field is open here')
  return open
}
