<script setup lang="ts">
import { computed, nextTick, ref, useTemplateRef, type ComponentPublicInstance } from 'vue'
import { answered, api, type Opened } from '../api/client'
import QuantityCell from '../shared/QuantityCell.vue'
import TextCell from '../shared/TextCell.vue'
import { useBuild } from '../shared/useBuild'
import { plainly, useUnits } from '../shared/units'

/** Where ballast may be fixed, and the pieces that are at hand. */
const { id, build, change, send, sendAway } = useBuild()
const { units, example } = useUnits()

const list = useTemplateRef('list')
const more = useTemplateRef<ComponentPublicInstance>('more')
const ballast = computed(() => build.value?.ballast ?? { spots: [], pieces: [] })
type Spot = (typeof ballast.value.spots)[number]
const path = computed(() => ({ build_id: id.value }))

function set(spot: string, patch: Partial<Spot>) {
  const spots = (now: Spot[]) =>
    now.map((each) => (each.id === spot ? { ...each, ...patch } : each))
  void change((now) => ({ ballast: { ...now.ballast, spots: spots(now.ballast.spots) } }))
}
function remove(spot: Spot) {
  void sendAway(spot.name, (header) => {
    const spots = ballast.value.spots.filter((each) => each.id !== spot.id)
    return answered<Opened>(
      api.PATCH('/api/v1/builds/{build_id}', {
        params: { path: path.value, header },
        body: { ballast: { ...ballast.value, spots } },
      }),
    )
  })
  more.value?.$el.focus()
}
async function addSpot() {
  const added = await send((header) =>
    answered<Opened>(
      api.POST('/api/v1/builds/{build_id}/ballast/spots', {
        params: { path: path.value, header },
      }),
    ),
  )
  if (!added) return
  await nextTick()
  list.value?.querySelector<HTMLElement>('.spot:last-of-type input')?.focus()
}

const typed = ref<string | null>(null)
const refused = ref('')
const asShown = (grams: number) => plainly(grams / units.value.mass.base, units.value.mass.digits)
/** The pieces at hand by how they are shown, those that look alike together. */
const shown = computed(() => {
  const texts = [...new Set(ballast.value.pieces.map(asShown))]
  return texts.map((text) => {
    const grams = ballast.value.pieces.filter((each) => asShown(each) === text)
    return { text: grams.length > 1 ? `${grams.length} x ${text}` : text, grams }
  })
})
const pieces = computed(() => shown.value.map((each) => each.text).join('; '))

async function keepPieces() {
  const line = typed.value
  if (line === null) return
  refused.value = ''
  const body = { line, unit: units.value.mass.name, shown: shown.value }
  const kept = await send(
    (header) =>
      answered<Opened>(
        api.PUT('/api/v1/builds/{build_id}/ballast/pieces', {
          params: { path: path.value, header },
          body,
        }),
      ),
    (field) => (field === 'line' ? 'This' : undefined),
    refused,
  )
  if (kept && typed.value === line) typed.value = null
}
function putBack(event: KeyboardEvent) {
  typed.value = null
  refused.value = ''
  ;(event.target as HTMLInputElement).blur()
}
</script>

<template>
  <h3>Ballast</h3>
  <div ref="list" class="spots">
    <div v-for="spot in ballast.spots" :key="spot.id" class="spot">
      <TextCell
        :value="spot.name"
        :label="`Name of ${spot.name}`"
        @kept="set(spot.id, { name: $event })"
      />
      <span
        >at
        <QuantityCell
          :value="spot.x_mm"
          kind="station"
          :unit="units.length.name"
          :base="units.length.base"
          :label="`${spot.name}, from the nose`"
          @kept="$event !== null && set(spot.id, { x_mm: $event })"
        />
        {{ units.length.name }}, at most
        <QuantityCell
          :value="spot.most_g"
          kind="mass"
          :unit="units.mass.name"
          :base="units.mass.base"
          :label="`${spot.name}, at most`"
          @kept="$event !== null && set(spot.id, { most_g: $event })"
        />
        {{ units.mass.name }}
        <v-verb class="faint" @click="remove(spot)">remove</v-verb></span
      >
      <span class="pair"
        ><v-checkbox-btn
          :model-value="spot.pair"
          label="in pairs, left and right"
          @update:model-value="set(spot.id, { pair: $event })"
        /><template v-if="spot.pair">
          at
          <QuantityCell
            :value="spot.y_mm"
            kind="station"
            :unit="units.length.name"
            :base="units.length.base"
            :label="`${spot.name}, to the side`"
            @kept="$event !== null && set(spot.id, { y_mm: $event })"
          />
          {{ units.length.name }} out</template
        ></span
      >
    </div>
  </div>
  <v-verb ref="more" @click="addSpot">one more spot</v-verb>
  <label
    >pieces at hand, {{ units.mass.name }}
    <v-text-field
      class="entry figure"
      aria-label="Pieces of ballast at hand"
      :model-value="typed ?? pieces"
      :placeholder="[5, 5, 10].map((grams) => example(grams, 'mass')).join('; ')"
      maxlength="600"
      @update:model-value="typed = $event"
      @change="keepPieces"
      @keydown.esc.stop="putBack"
    />
  </label>
  <p v-if="refused" class="wrong" role="alert">{{ refused }}</p>
  <p class="faint">
    Without pieces, any amount up to the most counts as possible. What is put in is at hand no more.
  </p>
</template>

<style scoped>
.pair {
  display: inline-flex;
  flex-wrap: wrap;
  gap: 0 6px;
  align-items: center;
}

.spots {
  display: grid;
  gap: 8px;
}

.spot {
  display: grid;
  gap: 4px;
  border-bottom: 1px solid var(--line);
  padding-bottom: 6px;
}
</style>
