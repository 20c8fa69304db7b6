<script setup lang="ts">
import { useNoticeWords } from '../say/notices'
import { useUnplacedWords } from '../say/unplaced'
import { computed, defineAsyncComponent, onBeforeUnmount, onMounted, ref } from 'vue'
import { useRoute } from 'vue-router'
import ARod from './ARod.vue'
import { ListLater } from './listLater'
import NoteSheet from './NoteSheet.vue'
import { PRESETS, useUnits } from './units'
import { useBuild } from './useBuild'
import { isTyping, useKeys } from './useKeys'
import { useLamp } from './useLamp'

// Fields and lists are a third of what a page loads: they come when they are first asked for.
const UnitSheet = defineAsyncComponent(() => import('./UnitSheet.vue'))

const noticeWords = useNoticeWords()
const { short } = useUnplacedWords()

const { build, loadouts, loadout, balanced, nextLoadout, assessment, turnBack } = useBuild()
const { choice, units } = useUnits()
const choosing = ref(false)
const hasChosen = ref(false)
const own = computed(() =>
  [units.value.mass, units.value.length, units.value.loading].map((each) => each.name).join(', '),
)
function chooseUnits(chosen: string) {
  if (chosen === 'own') choosing.value = hasChosen.value = true
  else choice.value = chosen
}
/** On a phone at the field the thumb needs the room; the place tells weight and balance itself. */
const route = useRoute()
const { lamp, toggle } = useLamp()

const place = computed(() => loadouts.value.findIndex((each) => each.id === loadout.value?.id) + 1)
const answers = computed(() => loadout.value?.answers ?? [])
/** A CG outside every range that applies is said next to any verdict, and who has no place. */
const outside = computed(() =>
  balanced.value?.outside ? `the CG lies ${balanced.value.outside}` : '',
)
const unplaced = computed(() => (balanced.value?.unplaced ? short(balanced.value.unplaced) : ''))
const noting = ref(false)
useKeys({ l: nextLoadout, m: () => (noting.value = true) })

/** Ctrl Z takes the last change of the build back, from any place; in a field it is the field's. */
function turned(event: KeyboardEvent) {
  const key = event.key.toLowerCase()
  if (!(event.ctrlKey || event.metaKey) || event.altKey || isTyping(event.target)) return
  if (key !== 'z' && key !== 'y') return
  event.preventDefault()
  void turnBack(key === 'y' || event.shiftKey ? 'redo' : 'undo')
}
onMounted(() => window.addEventListener('keydown', turned))
onBeforeUnmount(() => window.removeEventListener('keydown', turned))

// What is under the rods begins where they end, however many notices they carry.
const rods = ref<HTMLElement>()
const page = document.documentElement
const measure = new ResizeObserver(([rod]) =>
  page.style.setProperty(
    '--rods-height',
    `${Math.round(rod?.borderBoxSize[0]?.blockSize ?? 92)}px`,
  ),
)
onMounted(() => rods.value && measure.observe(rods.value))
onBeforeUnmount(() => {
  measure.disconnect()
  page.style.removeProperty('--rods-height')
})
</script>

<template>
  <header
    ref="rods"
    class="rods"
    :class="{ few: route.name === 'field' }"
    :style="{ '--rods': answers.length }"
  >
    <div class="name">
      <div class="top">
        <h1>{{ build?.name }}</h1>
      </div>
      <div class="faint small loadout">{{ loadout?.name }}</div>
      <div class="row faint small">
        <v-verb v-if="loadouts.length > 1" class="bare" @click="nextLoadout">
          loadout {{ place }} of {{ loadouts.length }} <kbd>L</kbd>
        </v-verb>
        <ListLater
          :model-value="choice"
          :items="[...PRESETS, { value: 'own', title: choice === 'own' ? own : 'your own …' }]"
          aria-label="Units"
          @update:model-value="chooseUnits"
        />
      </div>
      <div class="turns">
        <v-verb
          class="bare lamp"
          title="Take the last change back: Ctrl Z"
          @click="turnBack('undo')"
        >
          undo
        </v-verb>
        <v-verb class="bare lamp" title="Make it again: Ctrl Shift Z" @click="turnBack('redo')">
          redo
        </v-verb>
        <v-verb class="bare lamp" title="Write a note: M" @click="noting = true"> note </v-verb>
        <v-verb class="bare lamp" @click="toggle">
          {{ lamp ? 'daylight' : 'lamp' }}
        </v-verb>
      </div>
    </div>
    <ARod
      v-for="answer in answers"
      :key="answer.kind"
      :answer="answer"
      :outside="answer.kind === 'balance' ? outside : ''"
      :beside="answer.kind === 'balance' ? unplaced : ''"
    />
    <NoteSheet v-model="noting" />
    <UnitSheet v-if="hasChosen" v-model="choosing" />
    <p
      v-for="notice in assessment?.notices"
      :key="`${notice.code} ${notice.parts} ${notice.lot} ${notice.scale}`"
      class="notice wrong"
    >
      {{ noticeWords(notice) }}
    </p>
  </header>
</template>

<style scoped>
.rods {
  display: grid;
  grid-template-columns: 232px repeat(var(--rods, 4), minmax(0, 1fr));
  background: var(--paper);
  border-bottom: 1px solid var(--ink);
  min-height: 92px;
  position: sticky;
  top: 0;
  z-index: 10;
}

.name {
  padding: 8px 10px 6px 18px;
  min-width: 0;
}

.top {
  display: flex;
  justify-content: space-between;
  align-items: baseline;
}

h1 {
  font-size: 22px;
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
}

.loadout {
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
}

.row {
  display: flex;
  gap: 4px;
  white-space: nowrap;
  align-items: center;
  justify-content: space-between;
  min-height: 24px;
  margin-top: 4px;
}

.turns {
  display: flex;
  gap: 14px;
}

.lamp {
  min-height: 24px;
  font-size: 12px;
  color: var(--faint);
  text-decoration: underline;
}

.row .pick {
  --entry-height: 24px;
  --pick-caret: 14px;
  flex: none;
  font-size: 11px;
  min-width: 0;
  max-width: 98px;
  letter-spacing: -0.01em;
}

.notice {
  grid-column: 1 / -1;
  padding: 0 18px;
}

@media (max-width: 1000px) {
  .rods {
    grid-template-columns: repeat(2, minmax(0, 1fr));
    position: static;
  }

  .name {
    grid-column: 1 / -1;
  }
}

@media (max-width: 700px) {
  .few > :not(.name) {
    display: none;
  }
}
</style>
