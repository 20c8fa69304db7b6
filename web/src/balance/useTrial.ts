import { computed, inject, provide, ref, watch, type InjectionKey } from 'vue'
import { answered, api, type Assessment, type Opened, type WhatIf } from '../api/client'
import { useBuild } from '../shared/useBuild'
import { useWords } from '../shared/useWords'

function setUp() {
  const { id, build, trial, send } = useBuild()
  const words = useWords()

  /** Where things were dragged to [mm from the nose], by part. */
  const moved = ref(new Map<string, number>())
  const tried = computed(() => moved.value.size > 0)

  // One question at a time, and the newest wish when several wait.
  let busy = false
  let wish: WhatIf | undefined
  async function ask(question: WhatIf) {
    wish = question
    if (busy) return
    busy = true
    try {
      while (wish) {
        const body: WhatIf = wish
        wish = undefined
        const told = await answered<Assessment>(
          api.POST('/api/v1/builds/{build_id}/what-if', {
            params: { path: { build_id: id.value } },
            body,
          }),
        )
        if (!wish && tried.value) trial.value = told
      }
    } catch (error) {
      wish = undefined
      words.complain(error)
    } finally {
      busy = false
    }
  }

  const all = () => [...moved.value].map(([part, x_mm]) => ({ part, x_mm }))

  /** Try one thing elsewhere; everything answers, nothing is kept. */
  function move(part: string, x: number) {
    moved.value = new Map(moved.value).set(part, Math.round(x * 10) / 10)
    void ask({ moved: all() })
  }

  /** Try several at once, as a remedy has them. */
  function tryOut(to: { part: string; x: number }[]) {
    moved.value = new Map(to.map((each) => [each.part, each.x]))
    void ask({ moved: all() })
  }

  function drop() {
    moved.value = new Map()
    wish = undefined
    trial.value = undefined
  }

  async function keep() {
    if (!tried.value) return
    const body = { moved: all() }
    const kept = await send((header) =>
      answered<Opened>(
        api.POST('/api/v1/builds/{build_id}/moved', {
          params: { path: { build_id: id.value }, header },
          body,
        }),
      ),
    )
    if (kept) drop()
  }

  // What was tried was tried on the build as it was.
  watch(build, drop)

  return { moved, tried, move, tryOut, drop, keep }
}

export type Trial = ReturnType<typeof setUp>

const TRIAL: InjectionKey<Trial> = Symbol('trial')

/** Set up what is tried on the beam, for the place and all that is in it. */
export function openTrial(): Trial {
  const trial = setUp()
  provide(TRIAL, trial)
  return trial
}

/** What is tried on the beam. */
export function useTrial(): Trial {
  const trial = inject(TRIAL)
  if (!trial) throw new Error('nothing is tried here')
  return trial
}
