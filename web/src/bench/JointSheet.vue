<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { CAUTIONS } from '../say/qualities'
import { once } from '../shared/once'
import { plainly } from '../shared/units'
import { useBuild } from '../shared/useBuild'
import { useEscape } from '../shared/useEscape'
import { understand, whyNot } from '../shared/useQuantity'

const id = defineModel<string | null>({ required: true })
useEscape(computed({ get: () => id.value !== null, set: () => (id.value = null) }))
const { build, assessment, retime, clearJoint } = useBuild()

const joint = computed(() => build.value?.joints.find((each) => each.id === id.value))
const told = computed(() => assessment.value?.joints.find((each) => each.id === id.value))

const TIMES = [
  { key: 'close_after_s', title: 'may be closed after' },
  { key: 'close_by_s', title: 'closed by, if there is a hurry' },
  { key: 'handle_after_s', title: 'may be handled after' },
  { key: 'strong_after_s', title: 'strong after' },
] as const

const typed = ref<Record<string, string>>({})
const wrong = ref('')
watch(joint, (now) => {
  wrong.value = ''
  if (!now) return
  typed.value = Object.fromEntries(TIMES.map(({ key }) => [key, minutes(now[key])]))
})

const minutes = (seconds: number | null | undefined) =>
  seconds == null ? '' : plainly(seconds / 60)

/** A time that nobody touched stays as exact as it was. */
async function seconds(key: (typeof TIMES)[number]['key']): Promise<number> {
  const text = typed.value[key] ?? ''
  const before = joint.value?.[key]
  if (before != null && text === minutes(before)) return before
  return (await understand(text, 'number')) * 60
}

const keep = once(async () => {
  if (!id.value) return
  wrong.value = ''
  try {
    const times = {
      close_after_s: await seconds('close_after_s'),
      close_by_s: typed.value['close_by_s']?.trim() ? await seconds('close_by_s') : null,
      handle_after_s: await seconds('handle_after_s'),
      strong_after_s: await seconds('strong_after_s'),
    }
    if (await retime(id.value, times)) id.value = null
  } catch (error) {
    wrong.value = whyNot(error)
  }
})

async function clear() {
  if (id.value && (await clearJoint(id.value))) id.value = null
}
</script>

<template>
  <v-dialog
    aria-label="Joint"
    :model-value="id !== null"
    max-width="440"
    @update:model-value="id = null"
  >
    <v-sheet v-if="joint" class="sheet">
      <h2>{{ joint.name }}</h2>
      <p class="faint">
        {{ told?.adhesive }}, spread at
        {{
          new Date(joint.spread_at).toLocaleTimeString([], {
            hour: '2-digit',
            minute: '2-digit',
            hour12: false,
          })
        }}.
        {{ told?.caution && CAUTIONS[told.caution] }}
      </p>
      <form @submit.prevent="keep">
        <label v-for="time in TIMES" :key="time.key">
          <span>{{ time.title }}</span>
          <span
            ><v-text-field v-model="typed[time.key]" class="entry figure" inputmode="decimal" />
            min</span
          >
        </label>
        <p v-if="wrong" class="wrong small" role="alert">{{ wrong }}</p>
        <p class="faint small">From when it was spread; the maker's label rules.</p>
        <div class="verbs">
          <v-btn class="press--main" type="submit">Keep</v-btn>
          <v-btn @click="clear">Off the clock</v-btn>
        </div>
      </form>
    </v-sheet>
  </v-dialog>
</template>

<style scoped>
.sheet {
  padding: 20px 24px;
  display: grid;
  gap: 10px;
}

form {
  display: grid;
  gap: 8px;
}

label {
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: 12px;
}

.entry {
  width: 90px;
  text-align: right;
}

.verbs {
  display: flex;
  gap: 10px;
}
</style>
