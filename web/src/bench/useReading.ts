import { computed } from 'vue'
import { useUnits } from '../shared/units'
import { useBench } from './useBench'

/** The scale's display in words and figures, as every part of the Bench shows it. */
export function useReading() {
  const { reading, atRest, isRead, scale, armed, connected } = useBench()
  const { units, number } = useUnits()

  const unit = computed(() => units.value.mass.name)
  const digits = computed(() => {
    if (unit.value !== 'g') return 2
    return Math.max(0, Math.ceil(-Math.log10(scale.value?.step_g ?? 0.1) - 1e-9))
  })

  const shown = computed(() => {
    if (!isRead.value || !reading.value || reading.value.state === 'gone') return '–'
    if (reading.value.state === 'over') return 'over'
    return number(reading.value.reading_g, 'mass', digits.value)
  })

  const lamp = computed(() => {
    if (!connected.value) return { words: 'the workshop does not answer', steady: false }
    if (reading.value?.state === 'gone')
      return { words: 'the scale does not answer: is its cable in?', steady: false }
    if (!isRead.value) return { words: 'type what the scale shows', steady: false }
    if (armed.value) return { words: 'records when steady', steady: false }
    if (reading.value?.state === 'over') return { words: 'over its capacity', steady: false }
    return { words: atRest.value ? 'steady' : 'settling', steady: atRest.value }
  })

  return { unit, digits, shown, lamp }
}
