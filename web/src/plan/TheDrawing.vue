<script setup lang="ts">
import { useBeginnings } from '../shared/useBeginnings'
import { computed, nextTick, ref, watch } from 'vue'
import { useBuild } from '../shared/useBuild'
import { useKeys } from '../shared/useKeys'
import DrawnPlane from '../shared/drawing/DrawnPlane.vue'
import FirstDrawing from './FirstDrawing.vue'
import BodyForm from './BodyForm.vue'
import SurfaceForm from './SurfaceForm.vue'
import { useDraft } from './useDraft'
import WingNumbers from './WingNumbers.vue'
import SavePicture from '../shared/SavePicture.vue'
import PickList from '../shared/PickList.vue'
import { named } from '../shared/choices'

const { build, loadout } = useBuild()
const parts = computed(() => build.value?.parts.filter((part) => !part.retired) ?? [])
const drawing = useDraft()
const { draft, bodies, many, chosen, shown, moved, keep, step, addSurface } = drawing

useKeys({ '[': () => step(-1), ']': () => step(1) })

const beginnings = useBeginnings()

const ROLES = ['wing', 'tail', 'canard', 'fin'] as const
/** Nobody's yet: there is no wing, or it is still as the layout brought it. */
const first = computed(() => {
  const wing = shown.value?.outlines.find((each) => each.role === 'wing')
  return !wing || wing.untouched
})
const holder = ref<HTMLElement>()

/** Once it is drawn its form is gone: the hand goes on at the wing. */
const beside = ref<HTMLElement>()
watch(first, async (is) => {
  await nextTick()
  if (!is && document.activeElement === document.body)
    beside.value?.querySelector<HTMLElement>('section')?.focus()
})
</script>

<template>
  <section class="drawing" aria-label="Drawing">
    <figure>
      <div v-if="many" ref="holder">
        <DrawnPlane
          :surfaces="draft"
          :bodies="bodies"
          :assessment="shown"
          :loadout="shown?.loadouts.find((each) => each.id === loadout?.id) ?? loadout"
          :chosen="chosen"
          :parts="parts"
          @choose="chosen = $event"
          @moved="moved"
          @kept="keep()"
          @moved-frame="drawing.movedFrame"
          @kept-frame="drawing.keepBodies()"
        />
      </div>
      <SavePicture v-if="many" :of="holder" what="drawing" />
      <figcaption class="faint small">
        From above, from the side and from the front, on one scale. Drag a corner, or type beside
        it.
      </figcaption>
    </figure>
    <div ref="beside" class="beside">
      <FirstDrawing v-if="first" />
      <SurfaceForm :drawing="drawing" />
      <BodyForm :drawing="drawing" />
      <p class="small">
        Add a
        <template v-for="role in ROLES" :key="role">
          <v-verb @click="addSurface(role)"> {{ role }}</v-verb>{{ ' ' }}
        </template>
        <v-verb @click="drawing.addBody()">body</v-verb>
      </p>
      <p v-if="!first" class="small">
        <label
          >draw it anew as
          <PickList
            :model-value="''"
            :items="named(beginnings?.layouts, 'a layout')"
            aria-label="Draw it anew as"
            @update:model-value="drawing.drawAnew($event)"
        /></label>
        <span class="faint"> with this span and chord</span>
      </p>
    </div>
    <WingNumbers :assessment="shown" />
  </section>
</template>

<style scoped>
.drawing {
  display: grid;
  grid-template-columns: minmax(0, 48fr) minmax(0, 30fr) minmax(0, 25fr);
  gap: 24px 30px;
}

.beside {
  display: grid;
  gap: 14px;
  align-content: start;
  min-width: 0;
}

figure {
  margin: 0;
  min-width: 0;
}

.beside p button {
  min-height: 24px;
  margin-left: 6px;
}

@media (max-width: 1000px) {
  .drawing {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
