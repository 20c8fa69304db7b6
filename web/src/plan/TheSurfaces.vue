<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { answered, api, type Assessment, type Surface } from '../api/client'
import QuantityCell from '../shared/QuantityCell.vue'
import { useUnits } from '../shared/units'
import { useBuild } from '../shared/useBuild'

const emit = defineEmits<{ preview: [assessment: Assessment | undefined] }>()
const { id, build, change } = useBuild()
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
            @click="keep(draft.filter((each) => each.id !== surface.id))"
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
        <button type="button" class="plainly under small" @click="addSection(surface)">
          one more section
        </button>
      </div>
    </div>
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
