import vue from '@vitejs/plugin-vue'
import { defineConfig, type Plugin } from 'vite'
import vuetify from 'vite-plugin-vuetify'

/** The names of all that was built, for the service worker to keep. */
const files: Plugin = {
  name: 'files',
  generateBundle(_, bundle) {
    const names = Object.keys(bundle).filter((name) => /\.(js|css|woff2)$/.test(name))
    const source = JSON.stringify(names.map((name) => `/${name}`))
    this.emitFile({ type: 'asset', fileName: 'files.json', source })
  },
}

export default defineConfig({
  plugins: [vue(), vuetify({ autoImport: true }), files],
  build: { outDir: '../oaken_scale/api/pages', emptyOutDir: true, target: 'es2022' },
  server: { proxy: { '/api': 'http://127.0.0.1:8017' } },
})
