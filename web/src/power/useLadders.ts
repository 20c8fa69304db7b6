import { computed } from 'vue'
import { fixed, plainly } from '../shared/units'
import { percent as likely } from '../shared/verdicts'
import { useDrive } from './useDrive'

const TITLES = {
  motor: 'Motor',
  controller: 'Controller, continuous',
  burst: 'Controller, burst',
  pack: 'Pack',
  plug: 'Plug',
  wire: 'Wire',
  regulator: 'Regulator',
}
const short = (part: keyof typeof TITLES) => TITLES[part].split(',')[0]

/** Whether a chance leaves anything open that a figure alone would not tell. */
const isOpen = (chance: number) => chance >= 0.01 && chance <= 0.99

/** What a part of the drive takes, in words, and how it stands that. */
export interface Rung {
  title: string
  figure: string
  words: string
  rung: string
}

/** What each part of the drive takes at full throttle against what it stands: current, cells, heat;
 * and what has no ladder yet. */
export function useLadders() {
  const { drive, mine } = useDrive()

  const rows = computed(() =>
    (mine.value?.margins ?? []).map((each) => {
      const percent = Math.round(100 * Math.abs(each.share - 1))
      const over = percent ? `over what it stands by ${percent} %` : 'just over what it stands'
      const bursts = each.part === 'controller' ? ': in bursts only, if it has them' : ''
      const feel = each.rung === 'little in hand' && each.part !== 'burst'
      const holds = isOpen(each.holds) ? `, ${likely(each.holds)} that it holds` : ''
      const words =
        each.rung === 'over'
          ? over + holds + bursts
          : `${percent} % in hand${holds}${feel ? ': feel it after 20 s' : ''}`
      return {
        part: each.part,
        rung: each.rung,
        share: each.share,
        title: TITLES[each.part],
        figure: `${fixed(each.current_a, 1)} of ${plainly(each.most_a)} A`,
        words: words + (each.seconds ? `, for ${plainly(each.seconds)} s at most` : ''),
      }
    }),
  )
  const cells = computed<Rung[]>(() =>
    (mine.value?.cells ?? []).map((each) => {
      const least = each.least ?? 1
      const most = least === each.most ? '' : ` to ${each.most}`
      const range = each.most === null ? `${least} or more` : `${least}${most}`
      return {
        rung: each.rung,
        title: `${short(each.part)}, cells`,
        figure: `${each.cells}`,
        words: `made for ${range}${each.rung === 'over' ? ': not for this pack' : ''}`,
      }
    }),
  )
  const heat = computed<Rung[]>(() =>
    (mine.value?.heat ?? []).map((each) => {
      const feels =
        each.rung === 'over'
          ? 'too hot to go on with'
          : each.rung === 'in hand'
            ? 'in hand'
            : 'feel it after 20 s'
      return {
        rung: each.rung,
        title: `${short(each.part)}, warm`,
        figure: `${fixed(each.celsius, 0)} ±${fixed(2 * each.sd_c, 0)} °C`,
        words: `${feels}; ${fixed(each.felt_c, 0)} °C was felt at ${fixed(each.felt_a, 1)} A`,
      }
    }),
  )
  const missing = computed(() => {
    const pack = drive.value?.packs.find((each) => each.id === mine.value?.pack)
    return [
      ...(drive.value?.controller ? [] : ['the controller']),
      ...(drive.value?.motor.most_a == null ? ['the motor'] : []),
      ...(pack && pack.c_rating === null ? ['the pack (its C)'] : []),
    ]
  })

  return { mine, rows, cells, heat, missing }
}
