import { defineAsyncComponent } from 'vue'

const idle = () =>
  new Promise((told) => {
    if ('requestIdleCallback' in window) requestIdleCallback(told, { timeout: 2000 })
    else setTimeout(told, 300)
  })

/** A PickList on what stands on every place: it comes once the place stands, for what a builder looks
 * at comes first. */
export const ListLater = defineAsyncComponent(async () => {
  await idle()
  return import('./PickList.vue')
})
