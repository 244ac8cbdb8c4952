import { createRequire } from 'node:module'
import { fileURLToPath } from 'node:url'
import { compressAssets } from './scripts/compress.mjs'

const here = (path: string) => fileURLToPath(new URL(path, import.meta.url))
/** What only checks need is not installed where Redpoll only runs. */
function isHere(name: string): boolean {
  try {
    return createRequire(import.meta.url).resolve(name) !== ''
  } catch {
    return false
  }
}

export default defineNuxtConfig({
  modules: ['@pinia/nuxt', '@element-plus/nuxt', ...(isHere('@nuxt/eslint') ? ['@nuxt/eslint'] : [])],
  // without server rendering this Nuxt's development server finds its entry only through the environment API
  $development: { experimental: { viteEnvironmentApi: true } },
  ssr: false,
  spaLoadingTemplate: true,
  imports: { dirs: ['forms'] },
  components: [{ path: '~/components', pathPrefix: false }],
  devtools: { enabled: false },
  app: {
    head: {
      htmlAttrs: { lang: 'en' },
      title: 'Redpoll',
      meta: [
        { name: 'viewport', content: 'width=device-width, initial-scale=1' },
        { name: 'description', content: 'Choose, power and measure small DC fans' },
      ],
      link: [{ rel: 'icon', type: 'image/svg+xml', href: '/mark.svg' }],
    },
  },
  css: ['~/assets/fonts.css', '~/assets/base.css', '~/assets/element.css'],
  srcDir: 'app',
  serverDir: here('./server'),
  // a link’s page is fetched when the pointer or the focus reaches it, not for every link in sight
  experimental: {
    typedPages: true,
    defaults: { nuxtLink: { prefetchOn: { visibility: false, interaction: true } } },
  },
  compatibilityDate: '2026-01-01',
  nitro: {
    preset: 'node-server',
    plugins: [here('./demo/plugin.ts')],
    errorHandler: here('./server/error.ts'),
    logging: { compressedSizes: false },
    serverAssets: [{ baseName: 'migrations', dir: here('./server/db/migrations') }],
    externals: { external: ['@electric-sql/pglite'] },
  },
  // what is fetched only when it is asked for is not fetched beforehand either: the first page stays small
  hooks: {
    'nitro:build:public-assets': (nitro) => compressAssets(nitro.options.output.publicDir),
    'build:manifest': (manifest) => {
      for (const item of Object.values(manifest)) item.dynamicImports = []
    },
  },
  vite: {
    worker: { format: 'es' },
    // what every page begins with comes in one piece, not in twenty that fetch each other
    build: {
      rolldownOptions: { output: { codeSplitting: { groups: [{ name: 'first', tags: ['$initial'] }] } } },
    },
  },
  typescript: { strict: true, tsConfig: { compilerOptions: { noUncheckedIndexedAccess: true } } },
  telemetry: false,
  elementPlus: { importStyle: 'css', themes: ['dark'] },
  eslint: { config: { stylistic: false } },
})
