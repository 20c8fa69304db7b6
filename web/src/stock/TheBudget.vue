<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { answered, api, type Group, type Opened, type Shelved } from '../api/client'
import DonorSheet from './DonorSheet.vue'
import SoFar from './SoFar.vue'
import QuantityCell from '../shared/QuantityCell.vue'
import { useUnits } from '../shared/units'
import { useBuild } from '../shared/useBuild'
import { percent } from '../shared/verdicts'
import PickList from '../shared/PickList.vue'
import BudgetMeasure from './BudgetMeasure.vue'
import GuessedGroups from './GuessedGroups.vue'
import { named } from '../shared/choices'

const { id, build, assessment, send, loadouts } = useBuild()
const { number, quantity, units, exactLeft, stated } = useUnits()

const GROUPS: { value: Group; title: string; holds: string }[] = [
  { value: 'foam', title: 'Foam and spars', holds: 'sheets, rods, plates' },
  { value: 'joining', title: 'Joining', holds: 'glue and tape' },
  { value: 'power', title: 'Power', holds: 'motor, propeller, controller, pack' },
  { value: 'control', title: 'Control', holds: 'servos, receiver, wires, rods' },
  { value: 'payload', title: 'Payload', holds: 'what it carries' },
  { value: 'rest', title: 'The rest', holds: 'paint, small stuff, the allowance' },
]

const lines = computed(() => new Map(assessment.value?.budget.map((line) => [line.group, line])))
const most = computed(() =>
  Math.max(
    1,
    ...(assessment.value?.budget ?? []).flatMap((line) => [
      line.mass_g + 2 * line.sd_g,
      line.allotted_g ?? 0,
    ]),
  ),
)
const total = computed(() =>
  (build.value?.budget?.allotments ?? []).reduce((sum, each) => sum + each.grams, 0),
)

const shelf = useQuery({
  queryKey: ['shelf'],
  queryFn: () => answered<Shelved[]>(api.GET('/api/v1/builds')),
})
const isDonor = ref(false)
const earlier = computed(() => (shelf.data.value ?? []).filter((each) => each.id !== id.value))

function allot({ value: group, title }: (typeof GROUPS)[number], grams: number | null) {
  void send(
    (header) =>
      answered<Opened>(
        api.PUT('/api/v1/builds/{build_id}/budget/groups/{group}', {
          params: { path: { build_id: id.value, group }, header },
          body: { grams },
        }),
      ),
    (field) => (field === 'grams' ? `${title}, allotted` : undefined),
  )
}

function shareOut() {
  void send((header) =>
    answered<Opened>(
      api.PUT('/api/v1/builds/{build_id}/budget/usual', {
        params: { path: { build_id: id.value }, header },
      }),
    ),
  )
}

function asEarlier(earlier: string) {
  void send((header) =>
    answered<Opened>(
      api.PUT('/api/v1/builds/{build_id}/budget/earlier', {
        params: { path: { build_id: id.value }, query: { earlier }, header },
      }),
    ),
  )
}

function stands(group: Group): string {
  const line = lines.value.get(group)
  if (!line || line.left_g === null) return ''
  const amount = quantity(Math.abs(line.left_g), 'mass', exactLeft(line.left_g, line.sd_g))
  if (line.word === 'off course') return `${amount} over`
  if (line.word === 'too close to call')
    return `too close to call, ${amount} ${line.left_g >= 0 ? 'left' : 'over'}`
  return `within, ${percent(line.probability ?? 0)}, ${amount} left`
}
const isOver = (group: Group) => {
  const word = lines.value.get(group)?.word
  return word === 'off course' || word === 'too close to call'
}
</script>

<template>
  <div class="budget">
    <section aria-label="Budget">
      <div class="head">
        <p class="faint small">
          {{
            build?.budget
              ? `Allotted: ${stated(total)} ${units.mass.name}, ${build.budget.source}.`
              : 'Nothing is allotted yet.'
          }}
          Aboard: {{ loadouts[0]?.name }}.
        </p>
        <v-verb class="small" @click="shareOut"> usual shares of the limit </v-verb>
        <label v-if="earlier.length" class="small"
          >or as
          <PickList
            :model-value="''"
            :items="named(earlier, 'an earlier build')"
            aria-label="As an earlier build"
            @update:model-value="asEarlier"
          />
          came out</label
        >
        <v-verb class="small" :aria-expanded="isDonor" @click="isDonor = !isDonor">
          or as a donor weighs
        </v-verb>
      </div>
      <DonorSheet v-if="isDonor" :groups="GROUPS" @kept="isDonor = false" />
      <ul>
        <li v-for="group in GROUPS" :key="group.value" :data-group="group.value">
          <span class="name"
            ><strong>{{ group.title }}</strong>
            <span class="faint small">{{ group.holds }}</span></span
          >
          <BudgetMeasure class="measure" :line="lines.get(group.value)" :most="most" />
          <span class="figure now"
            ><template v-if="lines.get(group.value)?.mass_g"
              >{{ number(lines.get(group.value)!.mass_g, 'mass') }}
              <span class="faint"
                >±{{ number(2 * lines.get(group.value)!.sd_g, 'mass') }}</span
              ></template
            ><template v-else>–</template></span
          >
          <span class="of"
            >of
            <QuantityCell
              :value="lines.get(group.value)?.allotted_g ?? null"
              kind="mass"
              :unit="units.mass.name"
              :base="units.mass.base"
              optional
              :digits="units.mass.digits"
              :label="`Allotted to ${group.title}`"
              @kept="allot(group, $event)"
            />
            <span class="faint small">{{ units.mass.name }}</span></span
          >
          <span class="small stands" :class="{ wrong: isOver(group.value) }">{{
            stands(group.value)
          }}</span>
        </li>
      </ul>
    </section>
    <SoFar />
    <GuessedGroups :groups="GROUPS" />
  </div>
</template>

<style scoped>
.budget > * {
  min-width: 0;
}

.budget {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 24px;
}

.head {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 18px;
  align-items: center;
}

ul {
  margin: 6px 0 0;
}

li {
  display: grid;
  grid-template-columns: 240px minmax(120px, 1fr) 118px 140px 250px;
  gap: 14px;
  align-items: center;
  border-bottom: 1px solid var(--line);
  padding: 8px 0;
}

.name {
  display: grid;
}

.now {
  text-align: right;
}

.of {
  white-space: nowrap;
}

.of :deep(.cell) {
  width: 78px;
}

@media (max-width: 1000px) {
  li {
    grid-template-columns: minmax(0, 1fr) auto;
    gap: 4px 14px;
  }

  .measure,
  .stands {
    grid-column: 1 / -1;
  }
}
</style>
