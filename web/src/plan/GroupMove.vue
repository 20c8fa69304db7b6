<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { answered, api, type Opened, type Shelved } from '../api/client'
import { once } from '../shared/once'
import { useBuild } from '../shared/useBuild'
import { useWords } from '../shared/useWords'
import PickList from '../shared/PickList.vue'
import { named } from '../shared/choices'

/** Parts that go to another build together, or the like of them, as they were found to weigh. */
const props = defineProps<{ parts: string[]; name: string }>()
const { id, send } = useBuild()
const words = useWords()

const shelf = useQuery({
  queryKey: ['shelf'],
  queryFn: () => answered<Shelved[]>(api.GET('/api/v1/builds')),
})
const others = computed(() => (shelf.data.value ?? []).filter((each) => each.id !== id.value))
const to = ref('')

const go = once(async (copying: boolean) => {
  const there = others.value.find((each) => each.id === to.value)
  if (!there) return
  const kept = await send((header) =>
    answered<Opened>(
      api.POST('/api/v1/builds/{build_id}/parts-together', {
        params: { path: { build_id: id.value }, header },
        body: { parts: props.parts, to: there.id, copy_them: copying },
      }),
    ),
  )
  if (kept)
    words.say(`${props.name} ${copying ? 'copied' : 'moved'} to ${there.name}, as it was weighed.`)
})
</script>

<template>
  <span class="go small">
    <PickList
      v-model="to"
      :items="named(others, 'to another build …')"
      :aria-label="`Where ${name} goes`"
    />
    <template v-if="to">
      <v-verb @click="go(false)">move it there</v-verb>
      <v-verb @click="go(true)">copy it there</v-verb>
    </template>
  </span>
</template>

<style scoped>
.go {
  display: inline-flex;
  gap: 4px 12px;
  align-items: center;
  font-weight: 400;
  margin-left: 16px;
}

.pick {
  --entry-height: 28px;
  font-size: 13px;
}
</style>
