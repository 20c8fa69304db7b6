<script setup lang="ts">
import { computed, ref } from 'vue'
import { answered, api, type ListPreview, type Opened } from '../api/client'
import { once } from '../shared/once'
import { useBuild } from '../shared/useBuild'
import { useWords } from '../shared/useWords'
import { whyLeftOut } from '../say/refusals'
import PickList from '../shared/PickList.vue'
import { byName } from '../shared/choices'

/** Weighings, loadouts, throws or runs from a file: looked at first, kept when it is said so. */
const LISTS = [
  { name: 'weighings', title: 'weighings' },
  { name: 'loadouts', title: 'loadouts' },
  { name: 'throws', title: 'throws' },
  { name: 'runs', title: 'runs of the drive' },
] as const

const { id, send } = useBuild()
const words = useWords()
const chooser = ref<HTMLInputElement>()
const what = ref<(typeof LISTS)[number]['name']>('weighings')
const file = ref<File>()
const told = ref<ListPreview>()
const wrong = ref('')

const left = computed(() =>
  (told.value?.lines ?? []).filter((line) => line.why_not !== null && !line.is_known),
)
const known = computed(() => (told.value?.lines ?? []).filter((line) => line.is_known).length)

const binary = () => ({
  body: file.value as unknown as string,
  bodySerializer: (body: string) => body,
  headers: { 'Content-Type': 'application/octet-stream' },
})

async function look(chosen: File | undefined) {
  file.value = chosen
  told.value = undefined
  wrong.value = ''
  if (!chosen) return
  try {
    told.value = await answered<ListPreview>(
      api.POST('/api/v1/builds/{build_id}/lists/{what}/preview', {
        params: { path: { build_id: id.value, what: what.value } },
        ...binary(),
      }),
    )
  } catch (error) {
    wrong.value = (error as Error).message
  }
}

function choose(event: Event) {
  const input = event.target as HTMLInputElement
  const chosen = input.files?.[0]
  input.value = ''
  void look(chosen)
}

const keep = once(async () => {
  const count = told.value?.fresh ?? 0
  const kept = await send((header) =>
    answered<Opened>(
      api.POST('/api/v1/builds/{build_id}/lists/{what}', {
        params: { path: { build_id: id.value, what: what.value }, header },
        ...binary(),
      }),
    ),
  )
  if (!kept) return
  words.say(
    `${count} ${count === 1 ? 'line' : 'lines'} of ${what.value} added; Ctrl Z takes it back.`,
  )
  void look(undefined)
})
</script>

<template>
  <div class="list">
    <p class="row">
      <label
        >a file with
        <PickList
          v-model="what"
          :items="byName(LISTS)"
          aria-label="What the file lists"
          @update:model-value="look(file)"
      /></label>
      <v-btn @click="chooser?.click()">Choose the file</v-btn>
      <span class="faint small">CSV or xlsx, its columns in any order; nothing is kept yet</span>
      <input
        ref="chooser"
        type="file"
        accept=".csv,.xlsx,text/csv"
        hidden
        aria-label="File with a list"
        @change="choose"
      />
    </p>
    <p v-if="wrong" class="wrong" role="alert">{{ wrong.replace(/^file /, 'The file ') }}</p>
    <template v-if="told">
      <p role="status">
        <strong>{{ told.fresh }} new</strong
        ><template v-if="known">, {{ known }} here already</template
        ><template v-if="left.length">, {{ left.length }} cannot be taken</template>
      </p>
      <p class="faint small">
        read as:
        <template v-for="column in told.columns" :key="column.at"
          ><template v-if="column.field"
            >{{ column.heading }} → {{ column.field.replace('_', ' ') }};
          </template></template
        >
      </p>
      <ul v-if="left.length" class="small">
        <li v-for="line in left.slice(0, 12)" :key="line.line">
          line {{ line.line }}: {{ line.why_not && whyLeftOut(line.why_not) }}
          <span class="faint">({{ line.says }})</span>
        </li>
        <li v-if="left.length > 12" class="faint">and {{ left.length - 12 }} more</li>
      </ul>
      <v-btn class="press--main" :disabled="!told.fresh" @click="keep"
        >Keep {{ told.fresh }} new</v-btn
      >
    </template>
  </div>
</template>

<style scoped>
.list {
  display: grid;
  gap: 8px;
  justify-items: start;
}

.row {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px 14px;
}

ul {
  padding-left: 18px;
  list-style: disc;
  overflow-wrap: anywhere;
}
</style>
