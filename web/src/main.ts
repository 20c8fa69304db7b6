import '@fontsource-variable/atkinson-hyperlegible-next'
import '@fontsource-variable/atkinson-hyperlegible-mono'
import 'vuetify/styles/core'
import './style.css'
import { QueryClient, VueQueryPlugin } from '@tanstack/vue-query'
import { createApp } from 'vue'
import { createVuetify } from 'vuetify'
import { VBtn } from 'vuetify/components/VBtn'
import { aliases as signs, mdi } from 'vuetify/iconsets/mdi-svg'
import { api } from './api/client'
import App from './App.vue'
import { openEntries } from './shared/entries'
import { openOutbox } from './shared/outbox'
import { stayReachable } from './shared/reach'
import { ofBuild } from './shared/useBuild'
import { router } from './router'
import { themes } from './theme'

const queryClient = new QueryClient({
  defaultOptions: { queries: { staleTime: 60_000, retry: 1 } },
})
// The build is on its way while the page is set up; it is drawn once, with its parts, unless the
// workshop takes longer than anyone would wait for a blank page.
const PATIENCE_MS = 250
const first = /^\/build\/([^/]+)/.exec(location.pathname)?.[1]
const fetched = first && queryClient.prefetchQuery(ofBuild(decodeURIComponent(first), queryClient))

openOutbox()
openEntries()
stayReachable()
// A piece of these pages is there no more: the answer says which pages are, and they are opened.
window.addEventListener('vite:preloadError', () => {
  void api.GET('/api/v1/door').catch(() => undefined)
})
const app = createApp(App)
  .use(router)
  .use(VueQueryPlugin, { queryClient })
  .use(
    createVuetify({
      icons: { defaultSet: 'mdi', aliases: signs, sets: { mdi } },
      // A verb in a line of words: the library's button, in the type of the words beside it.
      aliases: { VVerb: VBtn },
      theme: { defaultTheme: 'linen', themes },
      defaults: {
        global: { ripple: false },
        VBtn: { variant: 'outlined', rounded: 0, elevation: 0, class: 'press' },
        VVerb: { variant: 'plain', rounded: 0, class: 'verb' },
        VTextField: { variant: 'outlined', density: 'compact', rounded: 0, hideDetails: 'auto' },
        VTextarea: { variant: 'outlined', density: 'compact', rounded: 0, hideDetails: 'auto' },
        VTable: { density: 'compact' },
        VCheckboxBtn: { density: 'compact', color: 'secondary' },
        VRadio: { density: 'compact', color: 'secondary' },
        VSelect: { variant: 'outlined', density: 'compact', rounded: 0, hideDetails: 'auto' },
      },
    }),
  )

const late = new Promise((done) => setTimeout(done, PATIENCE_MS))
void Promise.race([fetched, late]).then(() => app.mount('#app'))
