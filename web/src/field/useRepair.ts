import { computed, reactive, ref } from 'vue'
import type { Schemas } from '../api/client'
import { leftByRepair } from '../say/parts'
import { once } from '../shared/once'
import { useBuild } from '../shared/useBuild'
import { useUnits } from '../shared/units'
import { understand, whyNot } from '../shared/useQuantity'
import { useField } from './useField'

/** What is said of a part that was hurt, as it was typed. */
export interface Hurt {
  way: 'mended' | 'replaced' | 'off' | null
  glue: string
  patch: string
  name: string
  weighs: string
}

/** What a crash did, until it is written down as one repair. */
export function useRepair() {
  const { mend } = useField()
  const { build, assessment } = useBuild()
  const { units } = useUnits()

  /** A hurt propeller or pack is replaced: what comes first says so. */
  const isNeverMended = (id: string) => assessment.value?.never_mended.includes(id) ?? false
  const hurt = reactive(new Map<string, Hurt>())
  const happened = ref('')
  const wrong = ref('')
  const done = ref(false)

  const parts = computed(() =>
    (build.value?.parts ?? []).filter(
      (each) => !each.retired && !each.host && each.pedigree !== 'allowance',
    ),
  )
  const nameOf = (id: string) => parts.value.find((each) => each.id === id)?.name ?? id
  function toggle(id: string) {
    if (hurt.has(id)) hurt.delete(id)
    else {
      const way = isNeverMended(id) ? 'replaced' : 'mended'
      hurt.set(id, { way, glue: '', patch: '', name: nameOf(id), weighs: '' })
    }
    done.value = false
  }

  const grams = (typed: string) => understand(typed, 'mass', units.value.mass.name)
  const about = async (typed: string) => (typed.trim() ? grams(typed) : null)
  async function damage(): Promise<Schemas['DamageDoc'][]> {
    const all: Schemas['DamageDoc'][] = []
    for (const [part, of] of hurt) {
      if (of.way === 'off') all.push({ part })
      else if (of.way === 'replaced') {
        if (!of.weighs.trim())
          throw new Error(`${nameOf(part)}: say what the new one weighs, about`)
        const stated_g = await grams(of.weighs)
        all.push({
          part,
          replaced: { name: of.name.trim() || nameOf(part), pedigree: 'guess', stated_g },
        })
      } else {
        const added = leftByRepair(nameOf(part), await about(of.glue), await about(of.patch))
        if (!added.length) throw new Error(`${nameOf(part)}: say what glue or patch went on, about`)
        all.push({ part, added })
      }
    }
    return all
  }

  const keep = once(async () => {
    wrong.value = ''
    try {
      if (!hurt.size) throw new Error('Press each part that was hurt')
      const body = { words: happened.value.trim(), damage: await damage() }
      const told = [...hurt.keys()]
      const words = happened.value
      if (!(await mend(body))) return
      // What is pressed and typed while it is on its way is of the next repair.
      for (const id of told) hurt.delete(id)
      if (happened.value === words) happened.value = ''
      done.value = true
    } catch (error) {
      wrong.value = whyNot(error)
    }
  })

  return { parts, hurt, happened, wrong, done, nameOf, isNeverMended, toggle, keep }
}
