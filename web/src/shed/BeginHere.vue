<script setup lang="ts">
import { computed } from 'vue'
import QuantityCell from '../shared/QuantityCell.vue'
import { fixed, useUnits } from '../shared/units'
import { useBeginnings } from '../shared/useBeginnings'
import SpanChordPlot from './SpanChordPlot.vue'
import { useSpanChord } from './useSpanChord'
import PickList from '../shared/PickList.vue'
import { named } from '../shared/choices'

const { units, quantity } = useUnits()
const beginnings = useBeginnings()
const {
  sheets, things, wants, chosen, press, map, wrong, at, point, name, busy, refused, begin, isFine,
} = useSpanChord() // prettier-ignore

const WORDS = {
  auw: 'all-up weight',
  wing_loading: 'wing loading',
  thrust_to_weight: 'thrust-to-weight',
  power_loading: 'power loading',
  balance: 'balance, the pack slid',
  minutes: 'minutes level on the first pack',
} as const
type Kind = keyof typeof WORDS

function figure(kind: Kind, value: number | null): string {
  if (value === null) return '–'
  if (kind === 'auw') return quantity(value, 'mass')
  if (kind === 'wing_loading') return quantity(value, 'loading')
  if (kind === 'minutes') return `${fixed(value, 0)} min`
  return kind === 'thrust_to_weight' ? fixed(value, 2) : ''
}
const per = (chance: number | null) => (chance === null ? '–' : `${Math.round(100 * chance)} %`)
const quarrels = computed(() =>
  (map.value?.quarrels ?? []).map(({ kind, other, best }) =>
    other
      ? `${WORDS[kind]} and ${WORDS[other]} quarrel: no point here meets both (at best ${per(best)})`
      : `no point here meets the ${WORDS[kind]} (at best ${per(best)})`,
  ),
)
</script>

<template>
  <div class="here">
    <header>
      <router-link class="plainly under" :to="{ name: 'shed' }">Shed</router-link>
      <h1>Begin with what is there</h1>
    </header>
    <p class="faint">
      Which span and chord meet what you want, with these sheets and things. Every point is a plane
      that can be begun: its parts, weighed by listing and by sheet, as your builds taught.
    </p>
    <div class="two">
      <form class="wants" @submit.prevent="begin">
        <label
          >for
          <PickList
            v-model="wants.purpose"
            :items="named(beginnings?.purposes)"
            aria-label="What it is for"
        /></label>
        <label
          >laid out as
          <PickList
            v-model="wants.layout"
            :items="named(beginnings?.layouts)"
            aria-label="How it is laid out"
        /></label>
        <label
          >all-up weight, at most
          <span
            ><QuantityCell
              :value="wants.weight"
              kind="mass"
              label="All-up weight, at most"
              :unit="units.mass.name"
              :base="units.mass.base"
              optional
              :on-kept="(value) => (wants.weight = value)"
            />
            {{ units.mass.name }}</span
          ></label
        >
        <label
          >wing loading, at most
          <span
            ><QuantityCell
              :value="wants.loading"
              kind="loading"
              label="Wing loading, at most"
              :unit="units.loading.name"
              :base="units.loading.base"
              optional
              :on-kept="(value) => (wants.loading = value)"
            />
            {{ units.loading.name }}</span
          ></label
        >
        <label
          >static thrust
          <span
            ><QuantityCell
              :value="wants.pull"
              kind="thrust"
              label="Static thrust"
              :unit="units.thrust.name"
              :base="units.thrust.base"
              optional
              :on-kept="(value) => (wants.pull = value)"
            />
            {{ units.thrust.name }}</span
          ></label
        >
        <label v-if="wants.pull"
          >thrust-to-weight, at least
          <span
            ><QuantityCell
              :value="wants.thrust"
              kind="number"
              label="Thrust-to-weight, at least"
              optional
              :on-kept="(value) => (wants.thrust = value)"
          /></span>
        </label>
        <label
          >minutes level, at least
          <span
            ><QuantityCell
              :value="wants.minutes"
              kind="number"
              label="Minutes in level flight, at least"
              optional
              :on-kept="(value) => (wants.minutes = value)"
            />
            min</span
          ></label
        >
        <label
          >wing from
          <PickList v-model="wants.wing" :items="named(sheets)" aria-label="Sheet of the wing"
        /></label>
        <v-checkbox-btn v-model="wants.folded" label="folded over, two skins" />
        <label v-if="wants.folded"
          >thick over all
          <span
            ><QuantityCell
              :value="wants.thick"
              kind="length"
              label="Thickness of the wing"
              :unit="units.length.name"
              :base="units.length.base"
              optional
              :on-kept="(value) => (wants.thick = value)"
            />
            {{ units.length.name }}</span
          ></label
        >
        <label
          >tail and body from
          <PickList
            v-model="wants.body"
            :items="named(sheets)"
            aria-label="Sheet of the tail and body"
        /></label>
        <fieldset>
          <legend>from the drawer</legend>
          <p v-if="!things.length" class="faint">
            The drawer is empty: the map shows a bare airframe. Lay things in it from the Stock of
            any build.
          </p>
          <v-checkbox-btn
            v-for="{ thing } in things"
            :key="thing.id"
            :model-value="chosen.has(thing.id)"
            :label="`${thing.name}, ${quantity(thing.listing_g, 'mass')}`"
            @update:model-value="press(thing.id)"
          />
        </fieldset>
      </form>

      <section aria-label="Span against chord">
        <p v-if="wrong" class="wrong" role="alert">{{ wrong }}</p>
        <p v-else-if="!map" class="faint" aria-busy="true">Working out planes …</p>
        <template v-else>
          <SpanChordPlot :map="map" :point="point" @choose="at = $event" />
          <p class="small">
            <span class="box sure" aria-hidden="true" /> all wants met, 90 % and more
            <span class="box likely" aria-hidden="true" /> likelier than not
            <span class="box" aria-hidden="true" /> not: W too heavy, L loading, T thrust, B
            balance, M minutes
            <span class="faint">{{ isFine ? '' : ' · refining …' }}</span>
          </p>
          <p v-for="words in quarrels" :key="words" class="wrong" role="note">
            {{ words.replace(/^./, (first) => first.toUpperCase()) }}.
          </p>
          <div v-if="point" class="told" aria-live="polite">
            <h2 class="figure">
              {{ quantity(point.span_mm, 'length') }} by {{ quantity(point.chord_mm, 'length') }}
            </h2>
            <dl>
              <template v-if="!point.chances.some((each) => each.kind === 'auw')">
                <dt>all up</dt>
                <dd class="figure">{{ quantity(point.auw_g, 'mass') }}</dd>
              </template>
              <template v-for="each in point.chances" :key="each.kind">
                <dt>{{ WORDS[each.kind] }}</dt>
                <dd class="figure">{{ figure(each.kind, each.value) }} {{ per(each.chance) }}</dd>
              </template>
              <template v-if="point.stall_m_s">
                <dt>stalls at</dt>
                <dd class="figure">{{ quantity(point.stall_m_s, 'speed') }}</dd>
              </template>
              <template v-if="point.minutes && !wants.minutes">
                <dt>level on the first pack</dt>
                <dd class="figure">{{ fixed(point.minutes, 0) }} min</dd>
              </template>
            </dl>
            <form class="begin" @submit.prevent="begin">
              <v-text-field
                v-model="name"
                class="entry"
                aria-label="Name of the plane"
                placeholder="its name"
                maxlength="80"
              />
              <v-btn class="press--main" type="submit" :disabled="busy">Begin this one</v-btn>
              <span v-if="refused" class="wrong" role="alert">{{ refused }}</span>
            </form>
          </div>
        </template>
      </section>
    </div>
  </div>
</template>

<style scoped>
.here {
  padding: 20px 28px 60px;
  display: grid;
  gap: 12px;
}

header {
  display: flex;
  align-items: baseline;
  gap: 16px;
}

.two {
  display: grid;
  grid-template-columns: 340px minmax(0, 1fr);
  gap: 32px;
}

.wants {
  display: grid;
  gap: 10px;
  align-content: start;
}

label {
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: 10px;
}

label span {
  white-space: nowrap;
}

label .pick {
  max-width: 220px;
}

label :deep(.cell) {
  width: 76px;
}

fieldset {
  border: 0;
  border-top: 1px solid var(--line);
  padding: 10px 0 0;
  margin: 0;
}

section {
  display: grid;
  gap: 12px;
  align-content: start;
}

.box {
  display: inline-block;
  width: 14px;
  height: 14px;
  border: 1px solid var(--line);
  background: var(--paper);
  vertical-align: -2px;
}

.box + .box,
.box:not(:first-child) {
  margin-left: 14px;
}

.box.likely {
  background: var(--tag);
}

.box.sure {
  background: var(--tag-line);
}

dl {
  display: grid;
  grid-template-columns: max-content max-content max-content max-content;
  gap: 4px 18px;
  margin: 6px 0 12px;
}

dd {
  margin: 0;
}

.begin {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 10px;
}

@media (max-width: 900px) {
  .two {
    grid-template-columns: 1fr;
  }

  .here {
    padding: 14px 14px 80px;
  }

  dl {
    grid-template-columns: max-content 1fr;
  }
}
</style>
