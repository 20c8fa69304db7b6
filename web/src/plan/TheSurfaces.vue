<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed, ref, watch } from 'vue'
import { answered, api, type Assessment, type Beginnings, type Surface } from '../api/client'
import DrawnSections from './DrawnSections.vue'
import QuantityCell from '../shared/QuantityCell.vue'
import { useUnits } from '../shared/units'
import { useBuild } from '../shared/useBuild'

const emit = defineEmits<{ preview: [assessment: Assessment | undefined] }>()
const { id, build, change, takeOff } = useBuild()
const { units } = useUnits()

type Measure = keyof Surface['sections'][number]
const MEASURES: { key: Measure; title: string }[] = [
  { key: 'x_le_mm', title: 'leading edge, from nose' },
  { key: 'y_mm', title: 'out from the middle' },
  { key: 'z_mm', title: 'up' },
  { key: 'chord_mm', title: 'chord' },
]
const ROLES = ['wing', 'tail', 'canard', 'fin'] as const

const draft = ref<Surface[]>([])
watch(
  () => build.value?.surfaces,
  (surfaces) => (draft.value = JSON.parse(JSON.stringify(surfaces ?? []))),
  { immediate: true },
)

let turn = 0
async function show() {
  const mine = ++turn
  try {
    const told = await answered<Assessment>(
      api.POST('/api/v1/builds/{build_id}/what-if', {
        params: { path: { build_id: id.value } },
        body: { surfaces: draft.value },
      }),
    )
    if (mine === turn) emit('preview', told)
  } catch {
    // Half-typed figures need not make a drawing; they are refused in words when they are kept.
  }
}

function typed(surface: number, section: number, key: Measure, value: number | null) {
  const at = draft.value[surface]?.sections[section]
  if (!at || value === null) return
  at[key] = value
  void show()
}

/** A corner dragged: the drawing and its numbers follow, and are kept when it is let go. */
function dragged(surface: number, section: number, to: Partial<Record<Measure, number>>) {
  const at = draft.value[surface]?.sections[section]
  if (!at) return
  Object.assign(at, to)
  void show()
}

async function keep(next: Surface[] = draft.value) {
  turn++
  const kept = await change({ surfaces: next })
  if (!kept) draft.value = JSON.parse(JSON.stringify(build.value?.surfaces ?? []))
  emit('preview', undefined)
}

function kept(surface: number, section: number, key: Measure, value: number | null) {
  typed(surface, section, key, value)
  void keep()
}

function addSection(surface: Surface) {
  const last = surface.sections.at(-1)
  if (!last) return
  const out = surface.role === 'fin' ? { z_mm: last.z_mm + 100 } : { y_mm: last.y_mm + 100 }
  surface.sections.push({ ...last, ...out })
  void keep()
}

function dropSection(surface: Surface, at: number) {
  surface.sections.splice(at, 1)
  void keep()
}

function keepThickness(surface: Surface, value: number | null) {
  surface.thickness_mm = value
  void keep()
}
function keepIncidence(surface: Surface, value: number | null) {
  surface.incidence_deg = value ?? 0
  void keep()
}

const beginnings = useQuery({
  queryKey: ['beginnings'],
  queryFn: () => answered<Beginnings>(api.GET('/api/v1/beginnings')),
  staleTime: Infinity,
})
/** Another layout's first drawing in place of this one. */
function drawAs(layout: string) {
  const found = beginnings.data.value?.layouts.find((each) => each.id === layout)
  if (found) void keep(JSON.parse(JSON.stringify(found.starting_surfaces)))
}

const PLAIN = { profile: null, thickness_mm: null, incidence_deg: 0, twin: false }

function addSurface(role: Surface['role']) {
  const number = draft.value.filter((each) => each.role === role).length + 1
  const name = `${role[0]?.toUpperCase()}${role.slice(1)}${number > 1 ? ` ${number}` : ''}`
  const x = role === 'wing' || role === 'canard' ? 100 : 600
  const root = { x_le_mm: x, y_mm: 0, z_mm: 0, chord_mm: 120 }
  const tip = role === 'fin' ? { ...root, z_mm: 120 } : { ...root, y_mm: 250 }
  const taken = draft.value.map((each) => each.id)
  let surfaceId: string = role
  for (let n = 2; taken.includes(surfaceId); n++) surfaceId = `${role}-${n}`
  void keep([...draft.value, { ...PLAIN, id: surfaceId, name, role, sections: [root, tip] }])
}

const wings = computed(() => draft.value.filter((each) => each.role === 'wing').length)
</script>

<template>
  <div>
    <div class="head">
      <h2>Wing and tail</h2>
      <span class="faint small"
        >sections from the root out, in {{ units.length.name }}; the other half is mirrored</span
      >
    </div>
    <p v-if="!wings" class="faint">Draw the main wing: add one and type its sections.</p>
    <DrawnSections v-if="draft.length" :surfaces="draft" @moved="dragged" @kept="keep()" />
    <div class="surfaces">
      <div v-for="(surface, at) in draft" :key="surface.id" class="surface">
        <div class="title">
          <input
            v-model="surface.name"
            :aria-label="`Name of ${surface.name}`"
            class="name"
            maxlength="80"
            @change="keep()"
          />
          <select v-model="surface.role" :aria-label="`What ${surface.name} is`" @change="keep()">
            <option v-for="role in ROLES" :key="role">{{ role }}</option>
          </select>
          <button
            type="button"
            class="plainly faint under"
            @click="takeOff('surfaces', surface.id, surface.name)"
          >
            remove
          </button>
        </div>
        <table>
          <thead class="faint">
            <tr>
              <th v-for="measure in MEASURES" :key="measure.key">{{ measure.title }}</th>
              <th />
            </tr>
          </thead>
          <tbody>
            <tr v-for="(section, k) in surface.sections" :key="k">
              <td v-for="measure in MEASURES" :key="measure.key">
                <QuantityCell
                  :value="section[measure.key]"
                  :kind="measure.key === 'chord_mm' ? 'length' : 'station'"
                  :label="`${surface.name}, section ${k + 1}, ${measure.title}`"
                  :unit="units.length.name"
                  :base="units.length.base"
                  @typed="typed(at, k, measure.key, $event)"
                  @kept="kept(at, k, measure.key, $event)"
                />
              </td>
              <td>
                <button
                  v-if="surface.sections.length > 2"
                  type="button"
                  class="plainly faint under"
                  :aria-label="`Remove section ${k + 1}`"
                  @click="dropSection(surface, k)"
                >
                  remove
                </button>
              </td>
            </tr>
          </tbody>
        </table>
        <p class="more small">
          <button type="button" class="plainly under" @click="addSection(surface)">
            one more section
          </button>
          <label v-if="surface.role !== 'fin'"
            >shaped
            <select
              v-model="surface.profile"
              :aria-label="`How ${surface.name} is shaped`"
              @change="keep()"
            >
              <option :value="null">as usual</option>
              <option value="flat">flat plate</option>
              <option value="stepped">stepped</option>
              <option value="folded">folded, cambered</option>
            </select></label
          >
          <label v-if="surface.role !== 'fin'"
            >thick
            <QuantityCell
              :value="surface.thickness_mm"
              kind="length"
              optional
              :label="`${surface.name}, thickness`"
              :unit="units.length.name"
              :base="units.length.base"
              @kept="keepThickness(surface, $event)"
          /></label>
          <label v-if="surface.role !== 'fin'"
            >incidence
            <QuantityCell
              :value="surface.incidence_deg"
              kind="number"
              :label="`${surface.name}, incidence in degrees`"
              @kept="keepIncidence(surface, $event)"
            />°</label
          >
          <label v-if="surface.role === 'fin'"
            ><input v-model="surface.twin" type="checkbox" @change="keep()" /> one on each
            side</label
          >
        </p>
      </div>
    </div>
    <p class="small">
      <label
        >draw it anew as
        <select
          aria-label="Draw it anew as"
          @change="drawAs(($event.target as HTMLSelectElement).value)"
        >
          <option value="" selected>a layout</option>
          <option
            v-for="each in beginnings.data.value?.layouts ?? []"
            :key="each.id"
            :value="each.id"
          >
            {{ each.name }}
          </option>
        </select>
      </label>
    </p>
    <p class="small">
      Add a
      <template v-for="role in ROLES" :key="role">
        <button type="button" class="plainly under" @click="addSurface(role)">{{ role }}</button>{{
          ' '
        }}
      </template>
    </p>
  </div>
</template>

<style scoped>
.head {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 14px;
  align-items: baseline;
}

.surfaces {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(360px, 1fr));
  gap: 14px 24px;
  margin: 10px 0;
}

.title {
  display: flex;
  gap: 10px;
  align-items: baseline;
  border-bottom: 1px solid var(--ink);
  padding-bottom: 2px;
  font-size: 13px;
}

.name {
  flex: 1;
  min-width: 0;
  font: inherit;
  font-size: 15px;
  font-weight: 650;
  color: inherit;
  background: none;
  border: 0;
}

select {
  font: inherit;
  color: inherit;
  background: var(--paper);
  border: 1px solid var(--line);
}

.more {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 14px;
  align-items: center;
}

.more :deep(.cell) {
  width: 56px;
}

table {
  width: 100%;
  font-size: 13px;
}

th {
  font-weight: 400;
  text-align: right;
  vertical-align: bottom;
  font-size: 12px;
  line-height: 1.15;
  padding: 4px 0 2px 6px;
}

td {
  padding: 2px 0 2px 4px;
}

td :deep(.cell) {
  width: 100%;
}

@media (max-width: 700px) {
  .surfaces {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
