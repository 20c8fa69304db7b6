<script setup lang="ts">
import { once } from '../shared/once'
import { useBeginnings } from '../shared/useBeginnings'
import { computed, ref, watch } from 'vue'
import { answered, api, type Opened } from '../api/client'
import { useEscape } from '../shared/useEscape'
import { useQuantity } from '../shared/useQuantity'
import { useUnits } from '../shared/units'
import { vFirst } from '../shared/vFirst'
import PickList from '../shared/PickList.vue'
import { named } from '../shared/choices'

const open = defineModel<boolean>({ required: true })
const emit = defineEmits<{ begun: [id: string] }>()
useEscape(open)

const { units, quantity, example } = useUnits()
const beginnings = useBeginnings()
const purposes = computed(() => beginnings.value?.purposes ?? [])
const layouts = computed(() => beginnings.value?.layouts ?? [])

const name = ref('')
const purpose = ref('park')
const layout = ref('tractor')
const limit = useQuantity('mass', () => units.value.mass.name)
const step = ref(0.1)
const wrong = ref('')
const STEPS = [0.01, 0.1, 0.5, 1, 2].map((value) => ({ value, title: `${value} g steps` }))

watch(open, (now) => {
  if (!now) return
  name.value = ''
  wrong.value = ''
  limit.clear()
})

const begin = once(async () => {
  if (!name.value.trim()) {
    wrong.value = 'Give it a name; any name will do.'
    return
  }
  if (limit.text.value.trim()) await limit.typed(limit.text.value)
  if (limit.wrong.value) return
  try {
    const told = await answered<Opened>(
      api.POST('/api/v1/builds', {
        body: {
          name: name.value.trim(),
          purpose: purpose.value,
          layout: layout.value,
          auw_high_g: limit.value.value ?? null,
          step_g: step.value,
        },
      }),
    )
    open.value = false
    emit('begun', told.build.id)
  } catch (error) {
    wrong.value = (error as Error).message
  }
})
</script>

<template>
  <v-dialog v-model="open" max-width="520" aria-label="Begin a build">
    <v-sheet>
      <form class="begin" @submit.prevent="begin">
        <h2>Begin a build</h2>
        <v-text-field v-model="name" v-first label="Name" autocomplete="off" maxlength="80" />
        <PickList v-model="purpose" label="What it is for" :items="named(purposes)" />
        <PickList v-model="layout" label="How it is laid out" :items="named(layouts)" />
        <v-text-field
          :model-value="limit.text.value"
          label="All-up weight limit, if there is one"
          :placeholder="`like ${example(590, 'mass')} ${units.mass.name}`"
          :error-messages="limit.wrong.value"
          :hint="
            limit.value.value === undefined
              ? 'Your own, or the local legal one: check it with your authority.'
              : `understood as ${quantity(limit.value.value, 'mass')}`
          "
          persistent-hint
          autocomplete="off"
          @update:model-value="limit.typed"
        />
        <PickList v-model="step" label="Your scale shows" :items="STEPS" />
        <p class="faint">
          Targets and a first drawing follow from these; each says where it comes from, and all are
          yours to change.
        </p>
        <p v-if="wrong" class="wrong" role="alert">{{ wrong }}</p>
        <div class="verbs">
          <v-btn class="press--main" type="submit">Begin</v-btn>
          <v-btn @click="open = false">Not now</v-btn>
        </div>
      </form>
    </v-sheet>
  </v-dialog>
</template>

<style scoped>
.begin {
  display: grid;
  gap: 14px;
  padding: 22px 24px;
}

.verbs {
  display: flex;
  gap: 10px;
}
</style>
