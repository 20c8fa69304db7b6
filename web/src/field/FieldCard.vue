<script setup lang="ts">
import { computed, ref } from 'vue'
import { useQueryClient } from '@tanstack/vue-query'
import { answered, api, type AtTheField, type Schemas } from '../api/client'
import { goesSideways, OFTEN, SEEN, SELDOM, useFieldWords } from '../say/field'
import { useBuild } from '../shared/useBuild'
import { useWords } from '../shared/useWords'
import template from './card.html?raw'
import { useField } from './useField'

/** The field card: one file that works on any phone, and the file that it gives back. */
const { id, field, told, lines, controls } = useField()
const { build } = useBuild()
const client = useQueryClient()
const words = useFieldWords()
const said = useWords()

const fins = computed(
  () => new Set((build.value?.surfaces ?? []).filter((s) => s.role === 'fin').map((s) => s.id)),
)

function card(): string {
  const tabs = controls.value
    .map((each) => `${each.name} ${words.setting(each.set_mm, goesSideways(each, fins.value))}`)
    .join(', ')
  const data = {
    build: id.value,
    name: build.value?.name ?? '',
    loadout: told.value?.id ?? null,
    loadoutName: told.value?.name ?? '',
    auw_g: told.value?.auw_g ?? null,
    cg_mm: told.value?.cg_mm ?? null,
    stance: told.value?.ready.stance ?? '',
    made: new Date().toISOString(),
    lines: lines.value.map((line) => {
      const control = controls.value.find((each) => each.id === line.subject)
      const drawn = field.value?.told.controls.find((each) => each.id === line.subject)
      const wind = told.value?.ready.wind_m_s ?? null
      return {
        id: line.id,
        about: line.about,
        byThumb: line.by_thumb,
        closed: line.reason === null,
        title: words.title(line, control),
        caution: words.caution(
          line,
          control,
          drawn,
          wind,
          tabs,
          control !== undefined && goesSideways(control, fins.value),
        ),
        why: line.reason ? words.why(line.reason) : '',
      }
    }),
    controls: controls.value.map((each) => ({
      id: each.id,
      name: each.name,
      set_mm: each.set_mm,
      ways: goesSideways(each, fins.value) ? ['right', 'left'] : ['up', 'down'],
    })),
    words: [...OFTEN, ...SELDOM].map((each) => ({ id: each, title: SEEN[each] })),
    packs: (build.value?.power?.packs ?? []).map((each) => ({ id: each.id, name: each.name })),
  }
  const json = JSON.stringify(data).replace(/</g, '\\u003c')
  return template
    .replace('__TITLE__', () => (build.value?.name ?? '').replace(/[<&]/g, ''))
    .replace('__DATA__', () => json)
}

function save() {
  const at = URL.createObjectURL(new Blob([card()], { type: 'text/html' }))
  const link = document.createElement('a')
  link.href = at
  link.download = `${(build.value?.name ?? 'build').toLowerCase().replace(/[^a-z0-9]+/g, '-')}-field-card.html`
  link.click()
  setTimeout(() => URL.revokeObjectURL(at), 10_000)
}

const file = ref<HTMLInputElement>()
const told_of = ref('')
const wrongs = ref<string[]>([])
async function takeIn(event: Event) {
  const input = event.target as HTMLInputElement
  const chosen = input.files?.[0]
  input.value = ''
  if (!chosen) return
  told_of.value = ''
  wrongs.value = []
  try {
    const body = await chosen.text()
    const taken = await answered<Schemas['CardTaken']>(
      api.POST('/api/v1/builds/{build_id}/field/card', {
        params: { path: { build_id: id.value } },
        body: body as never,
        bodySerializer: (text: unknown) => text as string,
        headers: { 'Content-Type': 'application/json' },
      }),
    )
    client.setQueryData(['field', id.value], taken.field as AtTheField)
    void client.invalidateQueries({ queryKey: ['build', id.value] })
    told_of.value = `${taken.new} ${taken.new === 1 ? 'entry' : 'entries'} taken in${taken.known ? `, ${taken.known} were here already` : ''}.`
    wrongs.value = taken.refused.map((each) => `Entry ${each.entry}: ${each.words}`)
  } catch (error) {
    said.complain(error)
  }
}
</script>

<template>
  <div class="card">
    <p class="small faint">
      No network out there? Take a card: one file for the phone, and the file it gives back.
    </p>
    <p class="doors">
      <v-btn @click="save">Field card</v-btn>
      <v-btn @click="file?.click()">Take a card's file in</v-btn>
      <input
        ref="file"
        type="file"
        accept=".json,application/json"
        hidden
        aria-label="A card's file"
        @change="takeIn"
      />
    </p>
    <p v-if="told_of" class="small" role="status">{{ told_of }}</p>
    <p v-for="each in wrongs" :key="each" class="small wrong" role="alert">{{ each }}</p>
  </div>
</template>

<style scoped>
.card {
  display: grid;
  gap: 8px;
  border-top: 1px solid var(--line);
  padding-top: 10px;
}

.doors {
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
}

.doors .v-btn {
  min-height: 44px;
}
</style>
