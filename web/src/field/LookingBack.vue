<script setup lang="ts">
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'
import { answered, api, type Opened } from '../api/client'
import { once } from '../shared/once'
import { useBuild } from '../shared/useBuild'
import { useWords } from '../shared/useWords'
import TheNotes from './TheNotes.vue'
import { useField } from './useField'
import WhatBecameOfIt from './WhatBecameOfIt.vue'

const { field } = useField()
const { build } = useBuild()
const said = useWords()
const router = useRouter()

const back = computed(() => field.value?.told.looking_back)
const name = ref('')
const beginNext = once(async () => {
  const given = name.value.trim() || `${build.value?.name ?? 'Build'} 2`
  try {
    const opened = await answered<Opened>(
      api.POST('/api/v1/builds/{build_id}/next-version', {
        params: { path: { build_id: build.value?.id ?? '' } },
        body: { name: given },
      }),
    )
    await router.push({ name: 'plan', params: { id: opened.build.id } })
    said.say(`${given} begins with these weights as its figures, and the wishes for it.`)
  } catch (error) {
    said.complain(error)
  }
})
</script>

<template>
  <section v-if="back" aria-label="Looking back">
    <div class="was">
      <WhatBecameOfIt :back="back" />
      <h3>The next version</h3>
      <form class="next" @submit.prevent="beginNext">
        <v-text-field
          v-model="name"
          :label="`name, or ${build?.name} 2`"
          maxlength="80"
          autocomplete="off"
        />
        <v-btn type="submit">Begin it</v-btn>
      </form>
      <p class="small faint">
        The same plan, what its parts weigh as figures, the controls and the wishes.
      </p>
    </div>
    <TheNotes />
  </section>
</template>

<style scoped>
section {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 32px;
}

.was,
form {
  display: grid;
  gap: 10px;
  align-content: start;
  min-width: 0;
}

.next {
  grid-template-columns: 1fr auto;
}

@media (max-width: 900px) {
  section {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
