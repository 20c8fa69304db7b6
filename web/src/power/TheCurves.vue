<script setup lang="ts">
import { computed, ref } from 'vue'
import { MISSING } from '../say/metrics'
import SavePicture from '../shared/SavePicture.vue'
import { plainly, useUnits } from '../shared/units'
import ThrustPlot from './ThrustPlot.vue'
import { useDrive } from './useDrive'
import { useThrustCurves } from './useThrustCurves'

const { drive, mine, lacks } = useDrive()
const { number, units } = useUnits()
const thrust = useThrustCurves()
const { curves, asked } = thrust

const packOf = (id: string) => drive.value?.packs.find((each) => each.id === id)
const words = computed(() =>
  mine.value
    ? `Thrust against throttle with ${packOf(mine.value.pack)?.name}: ` +
      `${number(mine.value.half.thrust_gf, 'thrust')} ${units.value.thrust.name} at full throttle`
    : 'Thrust against throttle',
)
const HOW = {
  run: 'run on the stand',
  stated: 'by the thrust stated on the Plan',
  calculated: 'calculated from what is known',
  guess: 'a guess',
}
const holder = ref<HTMLElement>()
</script>

<template>
  <section aria-label="Thrust">
    <header>
      <h2>Thrust, {{ units.thrust.name }}</h2>
      <span class="faint small">against throttle, %</span>
    </header>
    <p v-if="!curves.length" class="faint">
      Nothing to draw yet{{ lacks ? `: ${MISSING[lacks]}` : '' }}.
    </p>
    <figure v-else ref="holder">
      <ThrustPlot :of="thrust" :words="words" />
      <figcaption class="small">
        <span v-for="each in [...curves].reverse()" :key="each.pack" :class="{ mine: each.mine }">
          <i aria-hidden="true" />{{ packOf(each.pack)?.name }}, half used:
          <b class="figure">{{ number(each.half.thrust_gf, 'thrust') }}</b>
          <span class="faint figure"> ±{{ number(2 * each.half.thrust_sd_gf, 'thrust') }}</span
          >, {{ HOW[each.half.known] }}
        </span>
        <span v-if="mine" class="fresher"
          ><i aria-hidden="true" />the same pack fresh, as it runs on the stand:
          <b class="figure">{{ number(mine.fresh.thrust_gf, 'thrust') }}</b></span
        >
        <span v-if="asked" class="asks"
          ><i aria-hidden="true" />{{ plainly(asked.ratio) }} of the weight asks
          <b class="figure">{{ number(asked.gf, 'thrust') }}</b></span
        >
      </figcaption>
    </figure>
    <SavePicture v-if="curves.length" :of="holder" what="curves" />
  </section>
</template>

<style scoped>
header {
  display: flex;
  justify-content: space-between;
  align-items: baseline;
  flex-wrap: wrap;
}

figure {
  margin: 6px 0 0;
}

figcaption {
  display: grid;
  gap: 2px;
}

i {
  display: inline-block;
  width: 22px;
  margin-right: 6px;
  border-top: 2px dashed var(--brass);
  vertical-align: middle;
}

.mine i {
  border-top: 3px solid var(--sea);
}

.fresher i {
  border-top: 1px solid var(--sea);
}

.asks i {
  border-top: 2px solid var(--oak);
}
</style>
