import { computed, ref } from 'vue'
import { useBuild } from './useBuild'

const chosen = ref<Record<string, string>>({})

/** The scale that a reading away from the Bench is made on: the one chosen, else the one of the
 * last reading, else the build's first. */
export function useScaleAtHand() {
  const { id, build } = useBuild()
  const scales = computed(() => build.value?.scales ?? [])
  const scale = computed(() => {
    const wanted = [chosen.value[id.value], build.value?.weighings.at(-1)?.scale]
    const found = wanted.map((each) => scales.value.find((scale) => scale.id === each))
    return found.find((each) => each !== undefined) ?? scales.value[0]
  })
  const choose = (scale = '') => (chosen.value[id.value] = scale)
  return { scales, scale, choose }
}
