<script setup lang="ts">
import { computed } from 'vue'
import type { RackLot } from '../api/client'
import { useUnits } from '../shared/units'
import { KINDS, type Rack } from '../shared/useRack'

/** What hangs on the rack of the workshop and is not in this build: pressed, it is taken. */
const props = defineProps<{ rack: Rack['rack']; others: RackLot[] }>()
defineEmits<{ take: [id: string] }>()

const { rate, perUnit } = useUnits()

const hanging = computed(() =>
  KINDS.map((kind) => ({
    ...kind,
    lots: props.others.filter((each) => each.lot.kind === kind.value),
  })).filter((kind) => kind.lots.length),
)
</script>

<template>
  <p v-if="rack.isPending.value" class="faint">Looking along the rack …</p>
  <p v-else-if="rack.isError.value" class="faint">
    The rack does not answer.
    <v-verb @click="rack.refetch()">try again</v-verb>
  </p>
  <div v-for="kind in hanging" :key="kind.value" class="kind">
    <h3 class="faint">{{ kind.title }}</h3>
    <ul>
      <li v-for="each in kind.lots" :key="each.lot.id">
        <button
          type="button"
          class="plainly shelved"
          :aria-label="`Take ${each.lot.name}`"
          @click="$emit('take', each.lot.id)"
        >
          <span>{{ each.lot.name }}</span>
          <span class="figure small"
            >{{ perUnit(each.now.value, each.lot.unit) }}
            <span class="faint"
              >±{{ perUnit(2 * each.now.doubt, each.lot.unit) }}
              {{ rate(each.lot.unit).name }}</span
            ></span
          >
          <span class="under faint small">take</span>
        </button>
      </li>
    </ul>
  </div>
</template>

<style scoped>
.kind {
  display: grid;
  grid-template-columns: 130px minmax(0, 1fr);
  border-top: 1px solid var(--line);
  padding: 4px 0;
}

.kind h3 {
  font-weight: 400;
  padding-top: 4px;
}

.shelved {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto 36px;
  gap: 12px;
  width: 100%;
  padding: 3px 6px;
}

.shelved:hover {
  background: var(--sea-wash);
}

@media (max-width: 1000px) {
  .kind {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
