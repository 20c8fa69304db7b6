<script setup lang="ts">
import { useTemplateRef } from 'vue'
import type { Doubt, Weighing } from '../api/client'
import { useBuild } from '../shared/useBuild'
import { fixed, useUnits } from '../shared/units'
import DoubtNote from './DoubtNote.vue'
import { panWords } from './panWords'
import RollRow from './RollRow.vue'

/** A reading that was kept: what it moved besides what was weighed, and what is doubted about it. */
const props = defineProps<{ reading: Weighing; doubt?: Doubt | undefined }>()

const { build, setAside, accept, news, nameOf } = useBuild()
const { quantity, number } = useUnits()

const note = useTemplateRef('note')
defineExpose({ go: () => note.value?.go() })

function time(at: string): string {
  return new Date(at).toLocaleTimeString([], { hour: '2-digit', minute: '2-digit', hour12: false })
}

/** What a reading moved besides the thing that was weighed. */
function moved(reading: Weighing): string[] {
  return (news.value.get(reading.id) ?? []).map((each) => {
    if (each.part) {
      const after = quantity(each.after, 'mass')
      return `${nameOf(each.part)} came to ${after}, not ${number(each.before, 'mass')}`
    }
    const lot = build.value?.lots.find((known) => known.id === each.lot)?.name
    const change = (each.after / each.before - 1) * 100
    const parts = each.made_of_it === 1 ? '1 part' : `${each.made_of_it} parts`
    return `${lot}: moved ${parts} by ${change > 0 ? '+' : '−'}${fixed(Math.abs(change), 0)} %`
  })
}

function toggle() {
  const { id, set_aside } = props.reading
  void setAside(id, set_aside === null ? 'set aside by hand' : null)
}
</script>

<template>
  <RollRow
    :when="time(reading.at)"
    :words="panWords(reading.pan, build)"
    :grams="quantity(reading.reading_g, 'mass')"
    :aside="reading.set_aside !== null"
  >
    <small v-if="reading.set_aside !== null">{{ reading.set_aside || 'set aside' }}</small>
    <small v-for="words in moved(reading)" :key="words">{{ words }}</small>
    <small v-if="reading.corrects">{{ reading.note }}</small>
    <small v-if="reading.accepted"
      >doubted, and right <v-verb @click="accept(reading.id, false)"> doubt it </v-verb></small
    >
    <small v-if="reading.typed">typed “{{ reading.typed }}”</small>

    <template #beside>
      <button type="button" class="plainly act" @click="toggle">
        {{ reading.set_aside === null ? 'set aside' : 'use again' }}
      </button>
      <DoubtNote v-if="doubt" ref="note" :doubt="doubt" />
    </template>
  </RollRow>
</template>

<style scoped>
.act {
  position: absolute;
  right: 0;
  bottom: 1px;
  font-size: 12px;
  line-height: 16px;
  padding: 0 0 0 6px;
  background: var(--paper);
  color: var(--faint);
  text-decoration: underline;
  opacity: 0;
}

li:hover .act,
.act:focus-visible,
.aside .act {
  opacity: 1;
}

@media (hover: none) {
  .act {
    opacity: 1;
    position: static;
    grid-column: 2 / -1;
    justify-self: end;
    padding: 6px 0;
  }
}
</style>
