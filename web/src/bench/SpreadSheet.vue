<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed, onBeforeUnmount, ref, watch } from 'vue'
import { answered, api, type Beginnings } from '../api/client'
import { CAUTIONS } from '../say/qualities'
import { once } from '../shared/once'
import { useBuild } from '../shared/useBuild'
import { useEscape } from '../shared/useEscape'
import { understand, whyNot } from '../shared/useQuantity'
import { useUnits } from '../shared/units'
import { panWords } from './panWords'
import { useBench } from './useBench'
import { about } from './useJoints'
import { ListLater } from '../shared/listLater'
import { named } from '../shared/choices'

const open = defineModel<boolean>({ required: true })
useEscape(open)
const { build, assessment, spread } = useBuild()
const { pan, isEmpty } = useBench()
const { units } = useUnits()

const beginnings = useQuery({
  queryKey: ['beginnings'],
  queryFn: () => answered<Beginnings>(api.GET('/api/v1/beginnings')),
  staleTime: Infinity,
})
/** The build's own glues first, then the usual ones. */
const own = computed(() => assessment.value?.adhesives ?? [])
const adhesives = computed(() => [...own.value, ...(beginnings.data.value?.adhesives ?? [])])

const name = ref('')
watch(open, (now) => {
  if (now) window.addEventListener('keydown', pressed)
  else window.removeEventListener('keydown', pressed)
  bead.value = wrong.value = ''
  lot.value = joining.value[0]?.id ?? ''
  if (now) name.value = isEmpty.value ? 'Joint' : panWords(pan.value, build.value)
})

const joining = computed(() =>
  (build.value?.lots ?? []).filter((each) => each.kind === 'adhesive' || each.kind === 'tape'),
)
const lot = ref('')
const bead = ref('')
const wrong = ref('')

const start = once(async (adhesive: string) => {
  wrong.value = ''
  const parts = pan.value.loads.map((load) => load.part)
  const of = joining.value.find((each) => each.id === lot.value)
  const kind = of?.unit === 'dm2' ? 'area' : 'run'
  try {
    const amount = bead.value.trim()
      ? await understand(bead.value, kind, units.value[kind].name)
      : null
    const joint = { name: name.value.trim() || 'Joint', adhesive, parts }
    const more = amount !== null && of ? { bead: { lot: of.id, amount } } : {}
    if (await spread({ ...joint, ...more })) open.value = false
  } catch (error) {
    wrong.value = `How much: ${whyNot(error)}`
  }
})

onBeforeUnmount(() => window.removeEventListener('keydown', pressed))

/** A number pressed before the list is there counts as soon as it is. */
async function pressed(event: KeyboardEvent) {
  if (event.target instanceof HTMLInputElement || !/^[1-9]$/.test(event.key)) return
  const { data } = await beginnings.suspense()
  const chosen = [...own.value, ...(data?.adhesives ?? [])][Number(event.key) - 1]
  if (chosen && open.value) void start(chosen.id)
}
</script>

<template>
  <v-dialog v-model="open" aria-label="Spread a joint" max-width="620">
    <v-sheet class="sheet">
      <h2>Spread just now: what?</h2>
      <p class="faint small">
        {{
          isEmpty
            ? 'Put its parts on the pan first, and they count as held until it may be handled.'
            : 'The parts on the pan count as held until it may be handled.'
        }}
      </p>
      <ul>
        <li v-for="(each, at) in adhesives" :key="each.id">
          <button type="button" class="plainly choice" @click="start(each.id)">
            <kbd>{{ at + 1 }}</kbd>
            <strong>{{ each.name }}</strong>
            <span class="small">
              <template v-if="each.close_after_s"
                >close after {{ about(each.close_after_s) }},
              </template>
              handle after {{ about(each.handle_after_s) }}, strong after
              {{ about(each.strong_after_s) }}
            </span>
            <span class="faint small caution">{{ each.caution && CAUTIONS[each.caution] }}</span>
          </button>
        </li>
      </ul>
      <p v-if="joining.length" class="bead">
        <label
          >with
          <v-text-field
            v-model="bead"
            class="entry figure few"
            aria-label="How much of it"
            inputmode="decimal"
            :placeholder="units.run.name === 'm' ? '0.4 m' : '1.3 ft'" />
          of
          <ListLater v-model="lot" :items="named(joining)" aria-label="Of which"
        /></label>
        <span class="faint small">then it becomes a part, found by weighing before and after</span>
      </p>
      <p v-if="wrong" class="wrong small" role="alert">{{ wrong }}</p>
      <label
        >called
        <v-text-field v-model="name" class="entry" aria-label="Name of the joint" maxlength="80"
      /></label>
      <p class="faint small">
        Usual times; the maker's label rules. Press the joint at the foot to set its own.
      </p>
    </v-sheet>
  </v-dialog>
</template>

<style scoped>
.sheet {
  padding: 20px 24px;
  display: grid;
  gap: 12px;
}

.bead {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 10px;
  align-items: center;
}

.few {
  width: 84px;
}

.choice {
  display: grid;
  grid-template-columns: 28px minmax(0, 1fr);
  gap: 0 8px;
  align-items: baseline;
  width: 100%;
  padding: 7px 8px;
  border-bottom: 1px solid var(--line);
}

.choice:hover {
  background: var(--sea-wash);
}

.choice > .small {
  grid-column: 2;
}
</style>
