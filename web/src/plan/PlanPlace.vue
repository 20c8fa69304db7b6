<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Assessment } from '../api/client'
import PlanView from '../shared/PlanView.vue'
import TextCell from '../shared/TextCell.vue'
import { useBuild } from '../shared/useBuild'
import TheDiary from './TheDiary.vue'
import TheLoadouts from './TheLoadouts.vue'
import TheParts from './TheParts.vue'
import TheScales from './TheScales.vue'
import TheSurfaces from './TheSurfaces.vue'
import TheTargets from './TheTargets.vue'
import WingNumbers from './WingNumbers.vue'

const { build, assessment, loadout, change } = useBuild()

/** What the drawing would come to while a figure is being typed. */
const preview = ref<Assessment>()
const shown = computed(() => preview.value ?? assessment.value)

const dots = computed(() => {
  const items = new Map(build.value?.items.map((item) => [item.id, item]))
  return (assessment.value?.items ?? []).flatMap((mass) => {
    const item = items.get(mass.id)
    if (!item || item.retired || mass.x_from_nose_mm === null) return []
    return [{ x: mass.x_from_nose_mm, y: item.station?.y_mm ?? 0, mass: mass.mass_g }]
  })
})
</script>

<template>
  <div class="plan">
    <label class="called"
      >called
      <TextCell
        :value="build?.name ?? ''"
        label="Name of the build"
        @kept="change({ name: $event })"
    /></label>
    <nav class="faint" aria-label="On this page">
      <a href="#targets">Targets</a><a href="#wing">Wing and tail</a><a href="#parts">Parts</a>
      <a href="#loadouts">Loadouts</a><a href="#diary">Diary</a><a href="#scales">Scales</a>
      <router-link :to="{ name: 'stock', query: { on: 'rack' } }">Sheets and rolls</router-link>
    </nav>
    <section class="top">
      <figure>
        <PlanView :outlines="shown?.outlines ?? []" :dots="dots" :cg="loadout?.cg" upright />
        <figcaption class="faint">
          Nose up. Discs are masses at their stations; the cross is the CG with its doubt.
        </figcaption>
      </figure>
      <TheTargets id="targets" />
    </section>
    <section id="wing" class="wing">
      <TheSurfaces @preview="preview = $event" />
      <WingNumbers :assessment="shown" />
    </section>
    <TheParts id="parts" />
    <div class="pair">
      <div>
        <TheLoadouts id="loadouts" />
        <TheDiary id="diary" class="diary" />
      </div>
      <TheScales id="scales" />
    </div>
  </div>
</template>

<style scoped>
.plan {
  padding: 10px 24px 48px;
  display: grid;
  gap: 22px;
}

.plan > * {
  min-width: 0;
}

.plan {
  grid-template-columns: minmax(0, 1fr);
}

.called {
  position: absolute;
  right: 24px;
  font-size: 13px;
}

nav {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 18px;
  font-size: 13px;
}

nav a {
  color: inherit;
}

.top {
  display: grid;
  grid-template-columns: minmax(0, 5fr) minmax(0, 6fr);
  gap: 28px;
}

.diary {
  margin-top: 22px;
}

figure {
  margin: 0;
}

figure :deep(svg) {
  max-height: 380px;
}

figcaption {
  font-size: 13px;
  margin-top: 6px;
}

.wing,
.pair {
  display: grid;
  grid-template-columns: minmax(0, 2fr) minmax(0, 1fr);
  gap: 28px;
}

.pair {
  grid-template-columns: minmax(0, 3fr) minmax(0, 2fr);
}

@media (max-width: 1000px) {
  .top,
  .wing,
  .pair {
    grid-template-columns: minmax(0, 1fr);
  }

  .plan {
    padding: 10px 14px 48px;
  }

  .top > *,
  .pair > * {
    min-width: 0;
    overflow-x: auto;
  }
}
</style>
