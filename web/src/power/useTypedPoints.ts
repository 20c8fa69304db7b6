import { onBeforeUnmount, onMounted, reactive, ref } from 'vue'
import type { RunPoint } from '../api/client'
import { understand, whyNot } from '../shared/useQuantity'
import { useUnits } from '../shared/units'
import { usePoints, type TypedPoint } from './usePoints'

/** The workshop does not answer: what was typed is asked again. */
class AwayError extends Error {}

/** Points of a run as they are typed beside the stand, until each is understood. */
export function useTypedPoints() {
  const { points, typed } = usePoints()
  const { units } = useUnits()

  const fields = reactive<TypedPoint>({ throttle: '', thrust: '', amps: '', volts: '' })
  const wrong = ref('')

  async function figure(text: string, what: string, kind: 'number' | 'thrust' = 'number') {
    if (!text.trim()) return null
    try {
      return await understand(text, kind, kind === 'thrust' ? units.value.thrust.name : undefined)
    } catch (error) {
      if (error instanceof TypeError) throw new AwayError(whyNot(error), { cause: error })
      throw new Error(`${what}: ${whyNot(error)}`, { cause: error })
    }
  }

  async function understood(given: TypedPoint): Promise<RunPoint> {
    const percent = await figure(given.throttle, 'Throttle')
    if (percent === null || percent < 0 || percent > 100)
      throw new Error('Throttle: say it in per cent, 0 to 100')
    const point = {
      throttle: percent / 100,
      thrust_gf: await figure(given.thrust, 'Thrust', 'thrust'),
      pack_a: await figure(given.amps, 'Amps'),
      pack_v: await figure(given.volts, 'Volts'),
      drawn_mah: 0,
    }
    if (point.thrust_gf === null && point.pack_a === null && point.pack_v === null)
      throw new Error('Type what the stand showed: thrust, amps or volts')
    return point
  }

  // What was typed leaves the fields at once, and waits in its order until it is understood: a second
  // press never keeps it twice, and a page that is closed meanwhile still has it.
  const isBlank = (given: TypedPoint) => !Object.values(given).some((text) => text.trim())
  function addPoint() {
    wrong.value = ''
    const given = { ...fields }
    if (isBlank(given)) {
      if (!typed.value.length) wrong.value = 'Throttle: say it in per cent, 0 to 100'
      return
    }
    typed.value.push(given)
    Object.assign(fields, { throttle: '', thrust: '', amps: '', volts: '' })
    void settle()
  }

  let busy = false
  let gone = false
  let again: ReturnType<typeof setTimeout> | undefined
  async function settle() {
    if (busy) return
    busy = true
    clearTimeout(again)
    try {
      for (let next = typed.value[0]; next; next = typed.value[0]) {
        const point = await understood(next)
        if (gone) return // it waits for the form that is open then
        points.value.push(point)
        typed.value.shift()
      }
    } catch (error) {
      if (gone) return
      if (error instanceof AwayError) again = setTimeout(settle, 2000)
      else {
        const given = typed.value.shift()
        if (given && isBlank(fields)) Object.assign(fields, given)
      }
      wrong.value = (error as Error).message
    } finally {
      busy = false
    }
  }
  onMounted(settle)
  onBeforeUnmount(() => {
    gone = true
    clearTimeout(again)
  })

  return { fields, wrong, addPoint }
}
