import '@fontsource-variable/atkinson-hyperlegible-next'
import '@fontsource-variable/atkinson-hyperlegible-mono'
import 'vuetify/styles'
import './style.css'
import { VueQueryPlugin } from '@tanstack/vue-query'
import { createApp } from 'vue'
import { createVuetify } from 'vuetify'
import { aliases, mdi } from 'vuetify/iconsets/mdi-svg'
import App from './App.vue'
import { openEntries } from './field/entries'
import { openOutbox } from './shared/outbox'
import { stayReachable } from './shared/reach'
import { router } from './router'
import { themes } from './theme'

openOutbox()
openEntries()
stayReachable()
createApp(App)
  .use(router)
  .use(VueQueryPlugin, {
    queryClientConfig: { defaultOptions: { queries: { staleTime: 60_000, retry: 1 } } },
  })
  .use(
    createVuetify({
      icons: { defaultSet: 'mdi', aliases, sets: { mdi } },
      theme: { defaultTheme: 'linen', themes },
      defaults: {
        global: { ripple: false },
        VBtn: { variant: 'outlined', rounded: 0, elevation: 0, class: 'press' },
        VTextField: { variant: 'outlined', density: 'compact', rounded: 0, hideDetails: 'auto' },
        VSelect: { variant: 'outlined', density: 'compact', rounded: 0, hideDetails: 'auto' },
      },
    }),
  )
  .mount('#app')
