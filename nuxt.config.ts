import { fileURLToPath } from 'node:url'

const here = (path: string) => fileURLToPath(new URL(path, import.meta.url))

export default defineNuxtConfig({
  modules: ['@pinia/nuxt', '@element-plus/nuxt', '@nuxt/eslint'],
  ssr: false,
  components: [{ path: '~/components', pathPrefix: false }],
  srcDir: 'app',
  serverDir: here('./server'),
  devtools: { enabled: false },
  telemetry: false,
  compatibilityDate: '2026-01-01',
  css: ['~/assets/fonts.css', '~/assets/base.css', '~/assets/element.css'],
  app: {
    head: {
      htmlAttrs: { lang: 'en' },
      title: 'Redpoll',
      meta: [{ name: 'viewport', content: 'width=device-width, initial-scale=1' }, { name: 'description', content: 'Choose, power and measure small DC fans' }],
      link: [{ rel: 'icon', type: 'image/svg+xml', href: '/mark.svg' }],
    },
  },
  elementPlus: { importStyle: 'css', themes: ['dark'] },
  typescript: { strict: true, tsConfig: { compilerOptions: { noUncheckedIndexedAccess: true } } },
  eslint: { config: { stylistic: true } },
  nitro: {
    preset: 'node-server',
    serverAssets: [{ baseName: 'migrations', dir: here('./server/db/migrations') }],
    externals: { external: ['@electric-sql/pglite'] },
  },
  vite: { worker: { format: 'es' } },
})
