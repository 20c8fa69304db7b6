import { usePreferredDark } from '@vueuse/core'
import { computed, ref, watchEffect } from 'vue'
import { useTheme } from 'vuetify'

/** What was chosen here; else it is as the device has it, also when that turns in the evening. */
const chosen = ref(localStorage.getItem('oaken-scale-lamp'))
const isDark = usePreferredDark()
const lamp = computed(() => (chosen.value === null ? isDark.value : chosen.value === 'on'))

/** Daylight or lamplight. */
export function useLamp() {
  const theme = useTheme()
  watchEffect(() => theme.change(lamp.value ? 'lamp' : 'linen'))

  function toggle() {
    chosen.value = lamp.value ? 'off' : 'on'
    localStorage.setItem('oaken-scale-lamp', chosen.value)
  }

  return { lamp, toggle }
}
