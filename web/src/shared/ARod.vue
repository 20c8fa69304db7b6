<script setup lang="ts">
import { METRICS } from '../say/metrics'
import { computed } from 'vue'
import type { TargetAnswer } from '../api/client'
import RodInside from './RodInside.vue'
import RodMeasure from './RodMeasure.vue'
import { isWorrying, useVerdicts } from './verdicts'

const props = defineProps<{ answer: TargetAnswer; outside: string; beside: string }>()
const { value, unit, end, origin, words, doubtingShort, unchecked } = useVerdicts()
const aside = computed(
  () => doubtingShort(props.answer) || unchecked(props.answer) || props.outside,
)

const doubt = computed(() =>
  props.answer.value === null ? '' : ` ±${value(2 * (props.answer.sd ?? 0), props.answer)}`,
)

const limit = computed(() => {
  const { low, high } = props.answer
  const write = (point: number) => `${end(point, props.answer)} ${unit(props.answer)}`.trim()
  if (low !== null && high !== null) return `between ${end(low, props.answer)} and ${write(high)}`
  if (high !== null) return `at most ${write(high)}`
  return low !== null ? `at least ${write(low)}` : 'no target set; set one on the Plan'
})
</script>

<template>
  <v-menu :close-on-content-click="false" :min-width="280" location="bottom">
    <template #activator="{ props: opener }">
      <button type="button" class="rod plainly" v-bind="opener" :data-rod="answer.kind">
        <span class="head">
          <span class="faint title"
            >{{ METRICS[answer.kind].title
            }}<template v-if="origin(answer)">, {{ origin(answer) }}</template></span
          >
          <span class="figure value"
            >{{ answer.value === null ? '–' : value(answer.value, answer)
            }}<span class="doubt">{{ doubt }}</span
            ><span class="unit">{{ ` ${unit(answer)}` }}</span></span
          >
        </span>
        <RodMeasure :answer="answer" />
        <span class="words" :class="{ wrong: isWorrying(answer.word) }">{{ words(answer) }}</span>
        <span v-if="aside" class="aside" :class="{ wrong: aside === outside }" :title="aside">{{
          aside
        }}</span>
        <span v-if="beside" class="aside">{{ beside }}</span>
      </button>
    </template>
    <RodInside :answer="answer" :limit="limit" />
  </v-menu>
</template>

<style scoped>
.rod {
  border-left: 1px solid var(--line);
  padding: 6px 12px 4px;
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 2px;
  align-content: start;
  container-type: inline-size;
  min-width: 0;
}

.head {
  display: flex;
  justify-content: space-between;
  align-items: baseline;
  gap: 6px;
}

.title {
  font-size: 13px;
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
}

.value {
  font-weight: 700;
  font-size: 16px;
  white-space: nowrap;
}

.doubt {
  font-size: 13px;
}

/* In letters of their own width: "oz/ft²" takes a fifth less. */
.unit {
  font-family: var(--words);
  font-size: 13px;
  font-weight: 500;
}

.words {
  font-weight: 600;
  font-size: 14px;
  line-height: 1.25;
}

.aside {
  font-size: 12px;
  line-height: 1.2;
}

/* Where there are more than four. */
@container (max-width: 190px) {
  .head {
    flex-wrap: wrap;
  }
}

@media (max-width: 1000px) {
  .rod {
    border-top: 1px solid var(--line);
  }

  .head {
    flex-wrap: wrap;
  }

  .words {
    font-size: 13px;
  }
}
</style>
