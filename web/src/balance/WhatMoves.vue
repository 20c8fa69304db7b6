<script setup lang="ts">
import { useRemedyWords } from '../say/remedies'
import { computed, reactive, ref, watch } from 'vue'
import { answered, api, type Part, type Saved } from '../api/client'
import QuantityCell from '../shared/QuantityCell.vue'
import TextCell from '../shared/TextCell.vue'
import { numbered } from '../shared/numbered'
import { useBuild } from '../shared/useBuild'
import { understand, whyNot } from '../shared/useQuantity'
import { plainly, useUnits } from '../shared/units'
import SeveralMoves from './SeveralMoves.vue'
import { useWords } from '../shared/useWords'
import PickList from '../shared/PickList.vue'
import { named } from '../shared/choices'

const { outcome } = useRemedyWords()

const { id, build, change, changePart, nameOf } = useBuild()
const { units, number, example } = useUnits()
const words = useWords()

const movable = computed(() =>
  (build.value?.parts ?? []).filter((part) => part.slide && !part.retired),
)
const others = computed(() =>
  (build.value?.parts ?? []).filter((part) => !part.slide && !part.retired && part.station),
)

function slide(part: Part, patch: Partial<NonNullable<Part['slide']>> | null) {
  void changePart(part.id, (now) => ({
    ...now,
    slide: patch && { ...(now.slide ?? { low_mm: 0, high_mm: 0 }), ...patch },
  }))
}
function add(id: string) {
  const part = others.value.find((each) => each.id === id)
  const x = part?.station?.x_mm ?? 0
  if (part) slide(part, { low_mm: x - 20, high_mm: x + 20 })
}

/** The list is only chosen from: walking through it moves nothing. */
const one = ref('')
function letMove() {
  add(one.value)
  one.value = ''
}

const wider = reactive({ part: '', low: '', high: '' })
const saved = ref<Saved>()
const refused = ref('')
watch(build, () => (saved.value = undefined))
async function ask() {
  refused.value = ''
  saved.value = undefined
  try {
    const read = (text: string) => understand(text, 'station', units.value.length.name)
    const slide = { low_mm: await read(wider.low), high_mm: await read(wider.high) }
    saved.value = await answered<Saved>(
      api.POST('/api/v1/builds/{build_id}/remedies/what-if', {
        params: { path: { build_id: id.value } },
        body: { part: wider.part, slide },
      }),
    )
  } catch (error) {
    refused.value = whyNot(error)
  }
}

const ballast = computed(() => build.value?.ballast ?? { spots: [], pieces: [] })
type Spot = (typeof ballast.value.spots)[number]
function spots(next: (now: Spot[]) => Spot[]) {
  void change((now) => ({ ballast: { ...now.ballast, spots: next(now.ballast.spots) } }))
}
function set(id: string, patch: Partial<Spot>) {
  spots((now) => now.map((each) => (each.id === id ? { ...each, ...patch } : each)))
}
function addSpot() {
  spots((now) => {
    const fresh = { ...numbered('spot', 'Spot', now), x_mm: 0, y_mm: 0, z_mm: 0 }
    return [...now, { ...fresh, most_g: 50, pair: false }]
  })
}

const typed = ref<string | null>(null)
const asShown = (grams: number) => plainly(grams / units.value.mass.base, units.value.mass.digits)
/** The pieces at hand by how they are shown, those that look alike together. */
const shown = computed(() => {
  const texts = [...new Set(ballast.value.pieces.map(asShown))]
  return new Map(
    texts.map((text) => {
      const alike = ballast.value.pieces.filter((each) => asShown(each) === text)
      return [alike.length > 1 ? `${alike.length} x ${text}` : text, alike]
    }),
  )
})
const pieces = computed(() => [...shown.value.keys()].join('; '))
/** "6 x 2.4" is six pieces of 2.4 g; those that nobody touched stay as exact as they were. */
async function several(text: string): Promise<number[]> {
  const before = shown.value.get(text.trim())
  if (before) return before
  const [, count, each] = /^\s*(\d+)\s*[x×*]\s*(.+)$/i.exec(text) ?? []
  const grams = await understand(each ?? text, 'mass', units.value.mass.name)
  const times = Number(count ?? 1)
  if (times > 40) throw new Error(`${times} pieces are more than the 40 that are kept`)
  return Array.from({ length: times }, () => grams)
}

async function keepPieces() {
  const text = typed.value ?? ''
  typed.value = null
  try {
    const given = text.split(';').filter((each) => each.trim())
    const grams = await Promise.all(given.map(several))
    await change((now) => ({ ballast: { ...now.ballast, pieces: grams.flat() } }))
  } catch (error) {
    words.complain(error)
  }
}
</script>

<template>
  <section aria-label="What may move" class="small">
    <h2>What may move</h2>
    <p v-for="part in movable" :key="part.id" class="line">
      <span>{{ nameOf(part.id) }}</span>
      <span
        ><QuantityCell
          :value="part.slide?.low_mm ?? 0"
          kind="station"
          :unit="units.length.name"
          :base="units.length.base"
          :label="`${part.name}, foremost`"
          @kept="$event !== null && slide(part, { low_mm: $event })"
        />
        to
        <QuantityCell
          :value="part.slide?.high_mm ?? 0"
          kind="station"
          :unit="units.length.name"
          :base="units.length.base"
          :label="`${part.name}, aftmost`"
          @kept="$event !== null && slide(part, { high_mm: $event })"
        />
        {{ ' ' }}
        <v-verb
          class="faint"
          :aria-label="`${part.name} stays where it is`"
          @click="slide(part, null)"
        >
          stays
        </v-verb></span
      >
    </p>
    <p>
      <PickList
        v-model="one"
        :items="named(others, 'one more that may move')"
        aria-label="May move too"
      />
      <v-verb v-if="one" @click="letMove">let it move</v-verb>
    </p>
    <form class="save" @submit.prevent="ask">
      <label
        >What would it save if the
        <PickList
          v-model="wider.part"
          :items="named([...movable, ...others])"
          placeholder="thing"
          aria-label="What if this might slide further"
      /></label>
      <span
        >might slide from
        <v-text-field v-model="wider.low" class="entry figure few" aria-label="Further forward" />
        to <v-text-field v-model="wider.high" class="entry figure few" aria-label="Further aft" />
        {{ units.length.name }}? <v-verb type="submit">work it out</v-verb>
      </span>
      <p v-if="saved" role="status">
        <template v-if="saved.saves_g !== null"
          ><strong
            >{{
              saved.saves_g > 0.05
                ? `It saves ${number(saved.saves_g, 'mass')} ${units.mass.name} of ballast`
                : 'It saves no ballast'
            }}.</strong
          >
        </template>
        {{ outcome(saved.then) }}
      </p>
      <p v-if="refused" class="wrong" role="alert">{{ refused }}</p>
    </form>
    <SeveralMoves />
    <h3>Ballast</h3>
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
        <v-verb class="faint" @click="spots((now) => now.filter((each) => each.id !== spot.id))">
          remove
        </v-verb></span
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
    <v-verb @click="addSpot">one more spot</v-verb>
    <label
      >pieces at hand, {{ units.mass.name }}
      <v-text-field
        class="entry figure"
        aria-label="Pieces of ballast at hand"
        :model-value="typed ?? pieces"
        :placeholder="[5, 5, 10].map((grams) => example(grams, 'mass')).join('; ')"
        @update:model-value="typed = $event"
        @change="keepPieces"
      />
    </label>
    <p class="faint">Without pieces, any amount up to the most counts as possible.</p>
  </section>
</template>

<style scoped>
.pair {
  display: inline-flex;
  flex-wrap: wrap;
  gap: 0 6px;
  align-items: center;
}

section {
  display: grid;
  gap: 8px;
  justify-items: start;
}

.save {
  display: grid;
  gap: 4px;
}

.few {
  width: 62px;
}

.line {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  gap: 2px 10px;
  width: 100%;
  align-items: center;
}

section :deep(.cell) {
  width: 62px;
}

.spot {
  display: grid;
  gap: 4px;
  border-bottom: 1px solid var(--line);
  padding-bottom: 6px;
}
</style>
