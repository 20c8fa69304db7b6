<script setup lang="ts">
import { computed } from 'vue'
import { fixed, useUnits } from '../shared/units'
import { useKeys } from '../shared/useKeys'
import { useStand } from './useStand'

const { state, on, shows, line, asked, settled, switchOn, switchOff, throttle, keep } = useStand()
const { number, units } = useUnits()

const shown = computed(() =>
  line.value?.thrust_gf == null || line.value.gone
    ? '–'
    : number(line.value.thrust_gf, 'thrust', units.value.thrust.name === 'gf' ? 0 : 1),
)
const lamp = computed(() => {
  if (line.value?.gone) return 'the stand does not answer: is its cable in?'
  return settled.value ? 'steady' : 'spinning up'
})
const expected = computed(() => {
  const { expected_gf: at, expected_sd_gf: sd } = shows.value ?? {}
  if (at == null || sd == null) return ''
  const write = (gf: number) => number(Math.max(gf, 0), 'thrust')
  return `${write(at - 2 * sd)} to ${write(at + 2 * sd)}`
})
const setting = computed(() => line.value?.throttle ?? asked.value)
const figures = computed(() => [
  { name: 'throttle', text: setting.value === null ? '–' : `${Math.round(100 * setting.value)} %` },
  { name: 'current', text: line.value?.pack_a == null ? '–' : `${fixed(line.value.pack_a, 1)} A` },
  { name: 'voltage', text: line.value?.pack_v == null ? '–' : `${fixed(line.value.pack_v, 1)} V` },
])

useKeys({
  ' ': keep,
  s: () => {
    if (state.value?.there) void (on.value ? switchOff() : switchOn())
  },
})
</script>

<template>
  <div v-if="state?.there" class="stand">
    <p class="above faint small">
      <span>thrust on the stand</span>
      <span
        >stand, <strong v-if="state.simulated" class="sea">simulated</strong>
        <template v-else>on its cable</template></span
      >
    </p>
    <v-btn v-if="!on" class="press--main" @click="switchOn">Switch it on <kbd>S</kbd></v-btn>
    <template v-else>
      <output class="live figure"
        >{{ shown }}<span class="unit">{{ units.thrust.name }}</span></output
      >
      <div class="below small">
        <strong class="lamp" :class="{ sea: settled }" role="status">{{ lamp }}</strong>
        <span v-if="expected" class="faint">expected {{ expected }}</span>
      </div>
      <dl class="three">
        <div v-for="each in figures" :key="each.name">
          <dt class="faint small">{{ each.name }}</dt>
          <dd class="figure">{{ each.text }}</dd>
        </div>
      </dl>
      <v-slider
        v-if="state.simulated"
        :model-value="Math.round(100 * asked)"
        label="Throttle"
        aria-label="Throttle of the stand, per cent"
        :min="0"
        :max="100"
        :step="5"
        hide-details
        color="secondary"
        @update:model-value="throttle($event / 100)"
      />
      <div class="acts">
        <v-btn class="press--main" @click="keep">Keep point <kbd>Space</kbd></v-btn>
        <v-btn @click="switchOff">Stop <kbd>S</kbd></v-btn>
      </div>
    </template>
  </div>
</template>

<style scoped>
.stand :deep(.v-slider-thumb__surface) {
  border-radius: 0;
}

.stand {
  display: grid;
  gap: 8px;
}

.above {
  display: flex;
  justify-content: space-between;
  margin: 0;
}

.sea {
  color: var(--sea);
}

.live {
  text-align: right;
  font-size: 74px;
  line-height: 1.05;
  font-weight: 600;
  letter-spacing: -0.04em;
}

.unit {
  font-size: 26px;
  margin-left: 8px;
}

.below {
  display: flex;
  justify-content: space-between;
}

.three {
  display: grid;
  grid-template-columns: repeat(3, 1fr);
  border: 1px solid var(--line);
  margin: 0;
}

.three div {
  padding: 6px 10px;
}

.three div + div {
  border-left: 1px solid var(--line);
}

dd {
  font-size: 18px;
  font-weight: 600;
}

.acts {
  display: flex;
  gap: 10px;
}

.acts .press--main {
  flex: 1;
}

kbd {
  margin-left: 8px;
}
</style>
