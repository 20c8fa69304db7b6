import { ref, watchEffect } from 'vue'
import { useTheme } from 'vuetify'

const kept = localStorage.getItem('oaken-scale-lamp')
const lamp = ref(
  kept === null ? window.matchMedia('(prefers-color-scheme: dark)').matches : kept === 'on',
)

/** Daylight or lamplight. */
export function useLamp() {
  const theme = useTheme()
  watchEffect(() => theme.change(lamp.value ? 'lamp' : 'linen'))

  function toggle() {
    lamp.value = !lamp.value
    localStorage.setItem('oaken-scale-lamp', lamp.value ? 'on' : 'off')
  }

  return { lamp, toggle }
}
