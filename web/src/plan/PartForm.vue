<script setup lang="ts">
import { computed, nextTick, onMounted, ref, watch } from 'vue'
import type { Part } from '../api/client'
import { useUnits } from '../shared/units'
import LifeSheet from './LifeSheet.vue'
import PartFigures from './PartFigures.vue'
import { usePartKeeping } from './usePartKeeping'
import TheseWords from '../shared/TheseWords.vue'

/** `placing`: the hand begins where it is said where the part sits. */
const props = defineProps<{ part?: Part; placing?: boolean }>()
const emit = defineEmits<{ done: [kept: boolean] }>()

const { units, example, quantity } = useUnits()
/** About how a panel's sides would be typed. */
const panel = computed(() => `${example(540, 'length')} x ${example(190, 'length')}`)
const name = ref<Pick<HTMLElement, 'focus' | 'blur'>>()
const figures = ref<InstanceType<typeof PartFigures>>()
onMounted(() => {
  if (props.placing) figures.value?.toStation()
  else if (props.part) name.value?.focus()
})

/** A part that was changed closes its line; one that was added begins the next. */
async function kept() {
  if (props.part) return emit('done', true)
  await nextTick()
  name.value?.focus()
}
const {
  fields,
  wrong,
  said,
  ifEach,
  itIsOfEach,
  amountUnit,
  multiplied,
  weighed,
  weighedAnew,
  chooseLot,
  keep,
  figureWasWrong,
  anotherPart,
  drop,
} = usePartKeeping(props.part, kept)

async function toEach() {
  await itIsOfEach()
  name.value?.focus()
}

const asking = ref(false)
/** On a phone the line is all that is asked for a new part, until the figures are wanted. */
const unfolded = ref(false)

/** Enter keeps the line; on what is pressed it presses that, and on a list it opens it. */
function onEnter(event: KeyboardEvent) {
  if (event.defaultPrevented || (event.target as HTMLElement).closest('button, summary')) return
  event.preventDefault()
  void keep()
}

const question = ref<HTMLElement | null>(null)
watch(weighedAnew, async (asked) => {
  await nextTick()
  if (asked) question.value?.querySelector('button')?.focus()
  else name.value?.focus()
})
</script>

<template>
  <form
    class="part-form"
    :class="{ folded: !part && !unfolded }"
    :aria-label="part ? part.name : 'The next part'"
    @submit.prevent="keep"
    @keydown.enter="onEnter"
    @keydown.esc="emit('done', false)"
  >
    <div class="fields">
      <label class="name"
        ><span class="faint">{{ part ? 'part' : 'next part, or all of it on one line' }}</span>
        <v-text-field
          ref="name"
          v-model="fields.name"
          class="entry"
          :data-first="part ? undefined : ''"
          :aria-label="part ? 'Name' : 'Name of the next part'"
          :placeholder="
            part
              ? ''
              : `Motor ${example(28, 'mass')} ${units.mass.name} at ${example(40, 'length')}`
          "
          autocomplete="off"
          maxlength="200"
        />
      </label>
      <PartFigures
        ref="figures"
        v-model="fields"
        :is-allowance="part?.pedigree === 'allowance'"
        :amount-unit="amountUnit"
        :multiplied="multiplied"
        @lot="chooseLot"
      />
    </div>
    <p v-if="wrong" class="wrong small" role="alert">{{ wrong }}</p>
    <p v-if="!part" class="small" role="status">
      {{ said }}
      <v-verb v-if="ifEach" class="each" @click="toEach">
        or each of them: {{ quantity(ifEach.grams, 'mass') }} in all
      </v-verb>
    </p>
    <div class="verbs small">
      <v-verb @click="keep"> {{ part ? 'keep' : 'add' }} <kbd>Enter</kbd> </v-verb>
      <template v-if="part">
        <v-verb class="faint" @click="emit('done', false)">
          leave it as it was <kbd>Esc</kbd>
        </v-verb>
        <v-verb v-if="!weighed" class="faint" @click="drop"> remove </v-verb>
        <v-verb class="faint" @click="asking = true"> it was repaired, replaced … </v-verb>
        <LifeSheet v-model="asking" :part="part" />
      </template>
      <v-verb v-else class="unfold" @click="unfolded = !unfolded">
        {{ unfolded ? 'the line alone' : 'figure by figure' }}
      </v-verb>
      <span v-if="!part" class="faint"
        >“Left panel {{ panel }} of sheet b in Wing at le {{ example(80, 'length') }}”: after its
        name a mass, or how much of what; then <em>in</em>, <em>at</em>, <em>left</em>,
        <em>right</em>, <em>up</em>.</span
      >
    </div>
    <TheseWords :of="['known by', 'pieces', 'station', 'option', 'lot']" class="words" />
    <div
      v-if="weighedAnew"
      ref="question"
      class="question"
      role="alertdialog"
      aria-label="It was weighed before"
      @keydown.esc.stop="weighedAnew = null"
    >
      <span>
        {{ part?.name }} was weighed before. Was its figure wrong, or is it another part now?
      </span>
      <v-verb @click="figureWasWrong"> the figure was wrong; the weighing stands </v-verb>
      <v-verb @click="anotherPart"> another part, to be weighed anew </v-verb>
      <v-verb class="faint" @click="weighedAnew = null"> neither <kbd>Esc</kbd> </v-verb>
    </div>
  </form>
</template>

<style scoped>
.part-form {
  display: grid;
  gap: 6px;
  padding: 8px 12px 10px;
  background: var(--paper);
  border: 1px solid var(--line);
  border-left: 3px solid var(--brass);
  white-space: normal;
}

.fields {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 12px;
  align-items: end;
}

.name {
  display: grid;
  flex: 1 1 260px;
  font-size: 13px;
}

.entry {
  width: 100%;
}

.each {
  min-height: 24px;
  margin-left: 12px;
}

.unfold {
  display: none;
}

@media (max-width: 700px) {
  .unfold {
    display: inline;
  }

  .folded > .words,
  .folded .fields > :not(.name) {
    display: none;
  }
}

.verbs,
.question {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 18px;
}

.verbs button,
.question button {
  min-height: 24px;
}
</style>
