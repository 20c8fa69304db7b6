import type { VBtn } from 'vuetify/components/VBtn'

/** The library's button under the name that our look of a verb goes by (see `main.ts`). */
declare module 'vue' {
  interface GlobalComponents {
    VVerb: typeof VBtn
  }
}
