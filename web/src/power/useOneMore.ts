import { nextTick, ref, useTemplateRef, type ComponentPublicInstance } from 'vue'

/** The fields for one more of a list of the drive: a verb opens them, and the hand goes into them,
 * and on from there to what was listed, or back. */
export function useOneMore() {
  const open = ref(false)
  const wrong = ref('')
  const list = useTemplateRef<ComponentPublicInstance>('list')

  async function to(what: string) {
    await nextTick()
    const inside = list.value?.$el as HTMLElement | undefined
    inside?.querySelector<HTMLElement>(what)?.focus()
  }
  async function ask() {
    open.value = true
    wrong.value = ''
    await to('[data-another] .cell input')
  }
  async function leave() {
    open.value = false
    wrong.value = ''
    await to('[data-more]')
  }
  /** What was listed stands in the list, under its id. */
  async function listed(id: string) {
    open.value = false
    wrong.value = ''
    await to(`[data-listed="${id}"] input`)
  }

  /** What is not said yet is asked for where it is missing: by a key the verb is reached before
   * the last figure is read, so it is never shut. */
  async function missing(words: string) {
    wrong.value = words
    await nextTick()
    const fields = (list.value?.$el as HTMLElement).querySelectorAll<HTMLInputElement>(
      '[data-another] .cell input',
    )
    ;[...fields].find((field) => !field.value.trim())?.focus()
  }

  return { open, wrong, ask, leave, listed, missing }
}
