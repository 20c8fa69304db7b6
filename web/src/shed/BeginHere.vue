<script setup lang="ts">
import { computed } from 'vue'
import { useUnits } from '../shared/units'
import { FIGURES, per } from './pointWords'
import PointTold from './PointTold.vue'
import SpanChordPlot from './SpanChordPlot.vue'
import WantsForm from './WantsForm.vue'
import { useSpanChord } from './useSpanChord'

const { quantity } = useUnits()
const {
  sheets, things, wants, chosen, press, map, wrong, at, point, name, busy, refused, begin, isFine,
} = useSpanChord() // prettier-ignore

const quarrels = computed(() =>
  (map.value?.quarrels ?? []).map(({ kind, other, best }) =>
    other
      ? `${FIGURES[kind]} and ${FIGURES[other]} quarrel: no point here meets both (at best ${per(best)})`
      : `no point here meets the ${FIGURES[kind]} (at best ${per(best)})`,
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
      <WantsForm
        :model-value="wants"
        :sheets="sheets"
        :things="things"
        :chosen="chosen"
        @press="press"
        @begin="begin"
      />

      <section aria-label="Span against chord">
        <p v-if="wrong" class="wrong" role="alert">{{ wrong }}</p>
        <p v-else-if="!map" class="faint" aria-busy="true">Working out planes …</p>
        <template v-else>
          <SpanChordPlot :map="map" :point="point" @choose="at = $event" />
          <p class="small legend">
            <span><span class="box sure" aria-hidden="true" /> all wants met, 90 % and more</span>
            <span><span class="box likely" aria-hidden="true" /> likelier than not</span>
            <span
              ><span class="box" aria-hidden="true" /> not: W too heavy, L loading, T thrust, B
              balance, M minutes</span
            >
            <span class="faint">{{ isFine ? '' : 'refining …' }}</span>
          </p>
          <p v-for="words in quarrels" :key="words" class="wrong" role="note">
            {{ words.replace(/^./, (first) => first.toUpperCase()) }}.
          </p>
          <div v-if="point" class="told" aria-live="polite">
            <h2 class="figure">
              {{ quantity(point.span_mm, 'length') }} by {{ quantity(point.chord_mm, 'length') }}
            </h2>
            <PointTold :point="point" :asked="Boolean(wants.minutes)" />
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

section {
  display: grid;
  gap: 12px;
  align-content: start;
}

.legend {
  display: flex;
  flex-wrap: wrap;
  gap: 0 14px;
}

.box {
  display: inline-block;
  width: 14px;
  height: 14px;
  border: 1px solid var(--line);
  background: var(--paper);
  vertical-align: -2px;
}

.box.likely {
  background: var(--tag);
}

.box.sure {
  background: var(--tag-line);
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
}
</style>
