import { nextTick, ref, useTemplateRef, type ComponentPublicInstance } from 'vue'

/** The fields for one more of a list of the drive: a verb opens them, and the hand goes into them,
 * and on from there to what was listed, or back. */
export function useOneMore() {
  const open = ref(false)
  const list = useTemplateRef<ComponentPublicInstance>('list')

  async function to(what: string) {
    await nextTick()
    const inside = list.value?.$el as HTMLElement | undefined
    inside?.querySelector<HTMLElement>(what)?.focus()
  }
  async function ask() {
    open.value = true
    await to('[data-another] .cell input')
  }
  async function leave() {
    open.value = false
    await to('[data-more]')
  }
  /** What was listed stands in the list, under its id. */
  async function listed(id: string) {
    open.value = false
    await to(`[data-listed="${id}"] input`)
  }

  return { open, ask, leave, listed }
}
