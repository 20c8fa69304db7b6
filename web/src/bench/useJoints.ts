import { titled } from '../router'
import { computed, onBeforeUnmount, ref, watch } from 'vue'
import { answered, api, type Joint, type Meanwhile } from '../api/client'
import { useWeighNext } from '../say/weighNext'
import { useBuild } from '../shared/useBuild'

const WORDS = {
  close: 'close in',
  'close by': 'close within',
  handle: 'handle in',
  strong: 'strong in',
}
const DUE = {
  close: 'may be closed',
  'close by': 'is past closing',
  handle: 'may be handled',
  strong: 'is strong',
}

/** A span of time as a clock shows it: 6:40, 2 h 05, 1 d 3 h. */
export function span(milliseconds: number): string {
  const seconds = Math.max(0, Math.round(milliseconds / 1000))
  const minutes = Math.floor(seconds / 60)
  const hours = Math.floor(minutes / 60)
  if (hours >= 24) return `${Math.floor(hours / 24)} d ${hours % 24} h`
  if (hours > 0) return `${hours} h ${String(minutes % 60).padStart(2, '0')}`
  return `${minutes}:${String(seconds % 60).padStart(2, '0')}`
}

/** A usual time in round words: 20 s, 15 min, 4 h, 1 day. */
export function about(seconds: number): string {
  if (seconds < 60) return `${seconds} s`
  if (seconds < 3600) return `${Math.round(seconds / 60)} min`
  if (seconds < 86400) return `${Math.round(seconds / 3600)} h`
  return seconds < 2 * 86400 ? '1 day' : `${Math.round(seconds / 86400)} days`
}

/** A quiet double note: something on the joint clock is due. */
function chime() {
  const audio = new AudioContext()
  for (const [at, pitch] of [
    [0, 660],
    [0.22, 880],
  ] as const) {
    const note = audio.createOscillator()
    const loudness = audio.createGain()
    note.frequency.value = pitch
    loudness.gain.setValueAtTime(0.06, audio.currentTime + at)
    loudness.gain.exponentialRampToValueAtTime(0.001, audio.currentTime + at + 0.2)
    note.connect(loudness).connect(audio.destination)
    note.start(audio.currentTime + at)
    note.stop(audio.currentTime + at + 0.2)
  }
  setTimeout(() => void audio.close(), 800)
}

/** The joints of the open build by the server's time, and what to do meanwhile. */
export function useJoints() {
  const { id, build, assessment, nameOf } = useBuild()
  const ahead = ref(0)
  const now = ref(Date.now())
  const { what } = useWeighNext()
  const found = ref<Meanwhile['free']>({ suggestions: [], parts: [] })
  const free = computed(() => [
    ...found.value.suggestions.map(what),
    ...found.value.parts.map(nameOf),
  ])

  async function ask() {
    try {
      const told = await answered<Meanwhile>(
        api.GET('/api/v1/builds/{build_id}/meanwhile', {
          params: { path: { build_id: id.value } },
        }),
      )
      ahead.value = new Date(told.now).getTime() - Date.now()
      found.value = told.free
    } catch {
      // Without an answer the clock runs on by itself; the next change asks again.
    }
  }
  watch(assessment, () => void ask(), { immediate: true })

  const clocks = computed(() =>
    (assessment.value?.joints ?? []).map((joint) => {
      const next = joint.moments.find((moment) => new Date(moment.at).getTime() > now.value)
      const left = next ? new Date(next.at).getTime() - now.value : 0
      return { joint, next, words: next ? `${WORDS[next.stage]} ${span(left)}` : 'strong' }
    }),
  )

  function tell(joint: Joint, from: number, to: number) {
    const due = joint.moments.filter((moment) => {
      const at = new Date(moment.at).getTime()
      return at > from && at <= to
    })
    const last = due.at(-1)
    if (!last) return
    document.title = `● ${joint.name} ${DUE[last.stage]}`
    chime()
    void ask()
  }

  const ticking = setInterval(() => {
    const before = now.value
    now.value = Date.now() + ahead.value
    if (now.value - before < 5000) {
      for (const joint of assessment.value?.joints ?? []) tell(joint, before, now.value)
    }
  }, 250)

  function calm() {
    titled('bench', build.value?.name)
  }
  watch(() => build.value?.name, calm, { immediate: true })
  window.addEventListener('pointerdown', calm)
  window.addEventListener('keydown', calm)
  onBeforeUnmount(() => {
    clearInterval(ticking)
    window.removeEventListener('pointerdown', calm)
    window.removeEventListener('keydown', calm)
  })

  return { clocks, free }
}
