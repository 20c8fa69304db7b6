<script setup lang="ts">
import { computed } from 'vue'
import type { Part, PartMass } from '../api/client'
import TheMark from '../shared/TheMark.vue'
import { useUnits } from '../shared/units'

const props = defineProps<{ part: Part; mass: PartMass; on: boolean; ashore: boolean }>()
defineEmits<{ press: [byKeys: boolean] }>()
const { number, exactness } = useUnits()

/** How far it came out from the estimate, as a part of it; at most a half is shown. */
const off = computed(() => {
  const { mass_g, estimate_g, is_far: far } = props.mass
  const change = estimate_g === 0 ? 0 : (mass_g - estimate_g) / Math.abs(estimate_g)
  const length = Math.min(Math.abs(change), 0.5) * 100
  return { left: `${change < 0 ? 50 - length : 50}%`, width: `${length}%`, far }
})
</script>

<template>
  <button
    type="button"
    class="tag"
    :class="{ on, ashore }"
    :aria-pressed="on"
    :data-part="part.id"
    @click="$emit('press', $event.detail === 0)"
  >
    <TheMark :mark="mass.mark" />
    <span class="inside">
      <span class="words">
        <span class="name">{{ part.name }}</span>
        <span class="figure mass"
          >{{ number(mass.mass_g, 'mass')
          }}<span v-if="mass.mark === 'guess'" class="faint">
            ±{{ number(2 * mass.sd_g, 'mass', exactness(mass.sd_g)) }}</span
          ></span
        >
      </span>
      <span class="bar" aria-hidden="true">
        <span class="centre" />
        <span class="off" :class="{ far: off.far }" :style="{ left: off.left, width: off.width }" />
      </span>
    </span>
  </button>
</template>

<style scoped>
.tag {
  display: flex;
  align-items: center;
  gap: 8px;
  width: 100%;
  height: 34px;
  margin-bottom: 3px;
  padding: 0 8px 0 11px;
  font: inherit;
  font-size: 14px;
  color: var(--ink);
  text-align: left;
  border: 0;
  cursor: pointer;
  break-inside: avoid;
  position: relative;
  isolation: isolate;
  background: var(--tag-line);
  clip-path: polygon(9px 0, 100% 0, 100% 100%, 9px 100%, 0 70%, 0 30%);
  transition: transform 0.15s;
}

.tag::before {
  content: '';
  position: absolute;
  inset: 1px;
  z-index: -1;
  background: var(--tag);
  clip-path: polygon(9px 0, 100% 0, 100% 100%, 9px 100%, 0 70%, 0 30%);
}

.tag:hover::before {
  background: var(--sea-wash);
}

.tag:focus-visible {
  background: var(--sea);
}

.tag:focus-visible::before {
  inset: 3px;
}

.tag.on {
  background: var(--ink);
  transform: translateX(-4px);
}

.tag.on::before {
  background: var(--sea-wash);
  inset: 2px;
}

.ashore .name::after {
  content: ', off';
  color: var(--faint);
  font-size: 12px;
}

.inside {
  flex: 1;
  min-width: 0;
}

.words {
  display: flex;
  justify-content: space-between;
  gap: 6px;
  line-height: 1.25;
}

.name {
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
}

.mass {
  font-weight: 700;
  white-space: nowrap;
}

.mass .faint {
  font-weight: 400;
  font-size: 12px;
}

.bar {
  display: block;
  position: relative;
  height: 5px;
  border-bottom: 1px solid color-mix(in srgb, var(--tag-line) 55%, transparent);
}

.centre {
  position: absolute;
  left: 50%;
  top: 0;
  height: 6px;
  border-left: 1px solid var(--faint);
}

.off {
  position: absolute;
  top: 1px;
  height: 4px;
  background: var(--sea);
  transition: 0.25s ease-out;
}

.off.far {
  background: var(--rust);
}

@media (max-width: 700px) {
  .tag {
    height: 44px;
  }
}
</style>
