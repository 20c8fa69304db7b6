<script setup lang="ts">
import { calledAnew, leftByRepair } from '../say/parts'
import { useQuery } from '@tanstack/vue-query'
import { computed, reactive, ref, watch } from 'vue'
import { answered, api, type Part, type Shelved } from '../api/client'
import { once } from '../shared/once'
import { useBuild } from '../shared/useBuild'
import { useEscape } from '../shared/useEscape'
import { understand, whyNot } from '../shared/useQuantity'
import { useUnits } from '../shared/units'
import PocketFields from './PocketFields.vue'
import RepairFields from './RepairFields.vue'
import { useLife } from './useLife'
import PickList from '../shared/PickList.vue'
import { named } from '../shared/choices'

const props = defineProps<{ part: Part }>()
const open = defineModel<boolean>({ required: true })
useEscape(open)
const { id, assessment } = useBuild()
const { units } = useUnits()
const life = useLife()

const DONE = [
  { value: 'repair', title: 'repaired' },
  { value: 'trim', title: 'sanded, trimmed' },
  { value: 'pocket', title: 'a pocket cut in it' },
  { value: 'replace', title: 'replaced' },
  { value: 'retire', title: 'taken off' },
  { value: 'move', title: 'moved to another build' },
] as const
type Done = (typeof DONE)[number]['value']

const isNeverMended = computed(
  () => assessment.value?.never_mended.includes(props.part.id) ?? false,
)
const first = (): Done => (isNeverMended.value ? 'replace' : 'repair')
const done = ref<Done>(first())
const EMPTY = {
  words: '', grams: '', name: '', glue: '', patch: '', to: '', long: '', wide: '', deep: '', holds: '',
} // prettier-ignore
const fields = reactive({ ...EMPTY })
const wrong = ref('')
/** What is begun stays while the sheet is put away, until it is written down or nothing happened. */
function begin() {
  wrong.value = ''
  if (!Object.values(fields).some(Boolean)) done.value = first()
}
function forget() {
  open.value = false
  Object.assign(fields, EMPTY)
}
watch(open, (now) => now && begin())
watch(() => props.part.id, forget)

const shelf = useQuery({
  queryKey: ['shelf'],
  queryFn: () => answered<Shelved[]>(api.GET('/api/v1/builds')),
})
const others = computed(() => (shelf.data.value ?? []).filter((each) => each.id !== id.value))

async function read(text: string, kind: 'mass' | 'length', of: string): Promise<number> {
  try {
    return await understand(text, kind, units.value[kind].name)
  } catch (error) {
    throw new Error(`${of}: ${whyNot(error)}`)
  }
}
const grams = (text: string, of: string) => read(text, 'mass', of)
const length = (text: string, of: string) => read(text, 'length', of)
const about = async (text: string, of: string) => (text.trim() ? grams(text, of) : null)

const keep = once(async () => {
  wrong.value = ''
  const { words } = fields
  try {
    let kept = false
    if (done.value === 'repair') {
      const added = leftByRepair(
        props.part.name,
        await about(fields.glue, 'Glue and tape'),
        await about(fields.patch, 'Patches'),
      )
      kept = await life.repair(props.part.id, words, added)
    } else if (done.value === 'trim')
      kept = await life.trim(props.part.id, words, await grams(fields.grams, 'What came off'))
    else if (done.value === 'pocket')
      kept = await life.pocket(props.part.id, words, {
        length_mm: await length(fields.long, 'Length of the pocket'),
        width_mm: await length(fields.wide, 'Width of the pocket'),
        depth_mm: fields.deep.trim() ? await length(fields.deep, 'Depth of the pocket') : null,
        holds: fields.holds || null,
      })
    else if (done.value === 'replace') {
      const name = fields.name.trim() || calledAnew(props.part.name)
      const mass = await grams(fields.grams, 'Mass of the new one')
      kept = await life.replace(props.part.id, words, {
        name,
        pedigree: 'listing',
        stated_g: mass,
      })
    } else if (done.value === 'retire') kept = await life.retire(props.part.id, words)
    else kept = await life.move(props.part.id, words, fields.to)
    if (kept) forget()
  } catch (error) {
    wrong.value = (error as Error).message
  }
})
</script>

<template>
  <v-dialog v-model="open" aria-label="What happened to it" max-width="560">
    <v-sheet class="sheet">
      <h2>{{ part.name }}: what happened to it?</h2>
      <form @submit.prevent="keep">
        <v-radio-group v-model="done" inline hide-details aria-label="What was done">
          <v-radio v-for="each in DONE" :key="each.value" :value="each.value" :label="each.title" />
        </v-radio-group>
        <p v-if="isNeverMended" class="small faint" role="note">
          A hurt propeller or pack is not mended: a new one in its place.
        </p>
        <RepairFields
          v-if="done === 'repair'"
          v-model:glue="fields.glue"
          v-model:patch="fields.patch"
        />
        <label v-if="done === 'trim'"
          >about
          <v-text-field v-model="fields.grams" class="entry figure few" inputmode="decimal" />
          {{ units.mass.name }} came off</label
        >
        <PocketFields
          v-if="done === 'pocket'"
          v-model:long="fields.long"
          v-model:wide="fields.wide"
          v-model:deep="fields.deep"
          v-model:holds="fields.holds"
          :part="part"
        />
        <template v-if="done === 'replace'">
          <label
            >by
            <v-text-field
              v-model="fields.name"
              class="entry"
              :placeholder="calledAnew(part.name)"
              maxlength="80"
          /></label>
          <label
            >listed at, or about
            <v-text-field v-model="fields.grams" class="entry figure few" inputmode="decimal" />
            {{ units.mass.name }}</label
          >
          <p class="faint small">It sits where the old one sat, in the same loadouts.</p>
        </template>
        <label v-if="done === 'move'"
          >to
          <PickList
            v-model="fields.to"
            :items="named(others)"
            placeholder="a build"
            aria-label="Build it moves to"
            required
          />
          <span class="faint small">with what it was found to weigh</span></label
        >
        <label
          >in words
          <v-text-field
            v-model="fields.words"
            class="entry long"
            placeholder="for the diary; may stay empty"
            maxlength="200"
        /></label>
        <p v-if="wrong" class="wrong small" role="alert">{{ wrong }}</p>
        <div class="verbs">
          <v-btn class="press--main" type="submit">Write it down</v-btn>
          <v-btn class="press--quiet" @click="forget">Nothing happened</v-btn>
        </div>
      </form>
    </v-sheet>
  </v-dialog>
</template>

<style scoped>
.sheet {
  padding: 20px 24px;
  display: grid;
  gap: 12px;
}

form {
  display: grid;
  gap: 10px;
}

.few {
  width: 78px;
}

.long {
  width: min(340px, 100%);
}

.verbs {
  display: flex;
  gap: 10px;
}
</style>
