import { computed, ref, watch } from 'vue'
import { answered, api, type Assessment, type Body, type Opened, type Surface } from '../api/client'
import { merged } from '../shared/merged'
import { useBuild } from '../shared/useBuild'

export type Measure = keyof Surface['sections'][number]
type Role = Surface['role']
type Frame = Body['frames'][number]

type Drawn = { surfaces: Surface[]; bodies: Body[] }
const copied = (drawn: Drawn): Drawn => JSON.parse(JSON.stringify(drawn))

const PLAIN = { profile: null, thickness_mm: null, incidence_deg: 0, twin: false }
const chosenOf = ref<Record<string, number>>({})

/** The drawing while it is worked on: what it would come to is told, and it is kept when let go. */
export function useDraft() {
  const { id, build, assessment, change, send, takeOff } = useBuild()

  const draft = ref<Surface[]>([])
  const bodies = ref<Body[]>([])
  /** What it was made of, what is on its way already included. */
  let base: Drawn = { surfaces: [], bodies: [] }
  function asKept() {
    base = copied({ surfaces: build.value?.surfaces ?? [], bodies: build.value?.bodies ?? [] })
    const { surfaces, bodies: solid } = copied(base)
    draft.value = surfaces
    bodies.value = solid
  }
  /** An answer to an older change must not put back what the hand has moved on from. */
  let keeping = 0
  watch(
    [() => build.value?.surfaces, () => build.value?.bodies],
    () => {
      if (!keeping) asKept()
    },
    { immediate: true },
  )
  /** Only what the hand changed is kept: a span that is on its way has the sections to itself. */
  async function keepAll(patch: Partial<Drawn>) {
    turn++
    keeping++
    const from = base
    const mine = copied({ ...base, ...patch })
    base = copied(mine)
    const isKept = await change(({ surfaces, bodies: solid }) => ({
      ...(patch.surfaces && { surfaces: merged(from.surfaces, mine.surfaces, surfaces) }),
      ...(patch.bodies && { bodies: merged(from.bodies, mine.bodies, solid) }),
    }))
    keeping--
    if (keeping) return isKept
    asKept()
    preview.value = undefined
    return isKept
  }

  /** Which one is worked on: the surfaces first, then the bodies. */
  const many = computed(() => draft.value.length + bodies.value.length)
  const chosen = computed({
    get: () => Math.min(chosenOf.value[id.value] ?? 0, Math.max(many.value - 1, 0)),
    set: (at: number) => (chosenOf.value[id.value] = at),
  })
  const surface = computed(() => draft.value[chosen.value])
  const body = computed(() => bodies.value[chosen.value - draft.value.length])
  function step(by: number) {
    if (many.value) chosen.value = (chosen.value + by + many.value) % many.value
  }

  /** What the drawing would come to while a figure is typed or a corner dragged. */
  const preview = ref<Assessment>()
  const shown = computed(() => preview.value ?? assessment.value)
  let turn = 0
  async function show() {
    const mine = ++turn
    try {
      const told = await answered<Assessment>(
        api.POST('/api/v1/builds/{build_id}/what-if', {
          params: { path: { build_id: id.value } },
          body: { surfaces: draft.value, bodies: bodies.value },
        }),
      )
      if (mine === turn) preview.value = told
    } catch {
      // Half-typed figures need not make a drawing; they are refused in words when they are kept.
    }
  }

  const keep = (surfaces: Surface[] = draft.value) => keepAll({ surfaces })
  const keepBodies = (next: Body[] = bodies.value) => keepAll({ bodies: next })

  function movedFrame(frame: number, to: Partial<Frame>) {
    const at = body.value?.frames[frame]
    if (!at) return
    Object.assign(at, to)
    void show()
  }

  function typedFrame(frame: number, key: keyof Frame, value: number | null) {
    if (value !== null) movedFrame(frame, { [key]: value })
  }

  function keptFrame(frame: number, key: keyof Frame, value: number | null) {
    typedFrame(frame, key, value)
    void keepBodies()
  }

  /** Change something of the body that is worked on, and keep it. */
  function setBody(patch: Partial<Body>) {
    if (!body.value) return
    Object.assign(body.value, patch)
    void keepBodies()
  }

  function addFrame() {
    const last = body.value?.frames.at(-1)
    if (last) body.value?.frames.push({ ...last, x_mm: last.x_mm + 100 })
    void keepBodies()
  }

  function dropFrame(at: number) {
    body.value?.frames.splice(at, 1)
    void keepBodies()
  }

  async function addBody() {
    const taken = bodies.value.map((each) => each.id)
    let n = 1
    while (taken.includes(n > 1 ? `body-${n}` : 'body')) n++
    const end = Math.max(
      200,
      ...draft.value.flatMap((each) => each.sections.map((s) => s.x_le_mm + s.chord_mm)),
    )
    const frame = { z_mm: 0, width_mm: 50, height_mm: 60 }
    const fresh: Body = {
      id: n > 1 ? `body-${n}` : 'body',
      name: n > 1 ? `Body ${n}` : 'Body',
      shape: 'box',
      frames: [
        { x_mm: 0, ...frame },
        { x_mm: Math.round(end), ...frame },
      ],
      y_mm: 0,
      twin: false,
      has_top: true,
    }
    if (await keepBodies([...bodies.value, fresh])) chosen.value = many.value - 1
  }

  function moved(section: number, to: Partial<Record<Measure, number>>) {
    const at = surface.value?.sections[section]
    if (!at) return
    Object.assign(at, to)
    void show()
  }

  function typed(section: number, key: Measure, value: number | null) {
    if (value !== null) moved(section, { [key]: value })
  }

  function kept(section: number, key: Measure, value: number | null) {
    typed(section, key, value)
    void keep()
  }

  /** Change something of the surface that is worked on, and keep it. */
  function set(patch: Partial<Surface>) {
    if (!surface.value) return
    Object.assign(surface.value, patch)
    void keep()
  }

  function addSection() {
    const last = surface.value?.sections.at(-1)
    if (!last || !surface.value) return
    const out = surface.value.role === 'fin' ? { z_mm: last.z_mm + 100 } : { y_mm: last.y_mm + 100 }
    surface.value.sections.push({ ...last, ...out })
    void keep()
  }

  function dropSection(at: number) {
    surface.value?.sections.splice(at, 1)
    void keep()
  }

  async function addSurface(role: Role) {
    const number = draft.value.filter((each) => each.role === role).length + 1
    const name = `${role[0]?.toUpperCase()}${role.slice(1)}${number > 1 ? ` ${number}` : ''}`
    const x = role === 'wing' || role === 'canard' ? 100 : 600
    const root = { x_le_mm: x, y_mm: 0, z_mm: 0, chord_mm: 120 }
    const tip = role === 'fin' ? { ...root, z_mm: 120 } : { ...root, y_mm: 250 }
    const taken = draft.value.map((each) => each.id)
    let surfaceId: string = role
    for (let n = 2; taken.includes(surfaceId); n++) surfaceId = `${role}-${n}`
    const fresh = { ...PLAIN, id: surfaceId, name, role, sections: [root, tip] }
    await keep([...draft.value, fresh])
    chosen.value = draft.value.length - 1
  }

  function remove() {
    if (surface.value) void takeOff('surfaces', surface.value.id, surface.value.name)
    else if (body.value) void takeOff('bodies', body.value.id, body.value.name)
  }

  type Shape = { span_mm?: number; chord_mm?: number; area_dm2?: number; tip_mm?: number }
  /** Make the surface to a figure: the core says how its sections follow. */
  function shape(made: Shape) {
    const mine = surface.value?.id
    if (!mine) return
    void send((header) =>
      answered<Opened>(
        api.POST('/api/v1/builds/{build_id}/surfaces/{surface_id}/shape', {
          params: { path: { build_id: id.value, surface_id: mine }, header },
          body: made,
        }),
      ),
    )
  }

  function parts(lot: string, layers: number) {
    const mine = (surface.value ?? body.value)?.id ?? ''
    return send((header) =>
      answered<Opened>(
        api.POST('/api/v1/builds/{build_id}/surfaces/{surface_id}/parts', {
          params: { path: { build_id: id.value, surface_id: mine }, header },
          body: { lot, layers },
        }),
      ),
    )
  }

  const cut = (parts: string[]) =>
    send((header) =>
      answered<Opened>(
        api.POST('/api/v1/builds/{build_id}/parts/cut', {
          params: { path: { build_id: id.value }, header },
          body: { parts },
        }),
      ),
    )

  /** Another layout's drawing in place of this one, to the same span and chord. */
  function drawAnew(layout: string) {
    chosen.value = 0
    void send((header) =>
      answered<Opened>(
        api.PUT('/api/v1/builds/{build_id}/layout', {
          params: { path: { build_id: id.value }, header },
          body: { layout },
        }),
      ),
    )
  }

  return {
    drawAnew,
    draft,
    bodies,
    many,
    body,
    keepBodies,
    movedFrame,
    typedFrame,
    keptFrame,
    setBody,
    addFrame,
    dropFrame,
    addBody,
    cut,
    chosen,
    surface,
    step,
    shown,
    keep,
    moved,
    typed,
    kept,
    set,
    addSection,
    dropSection,
    addSurface,
    remove,
    shape,
    parts,
  }
}

export type Draft = ReturnType<typeof useDraft>
