import { execFile } from 'node:child_process'
import { existsSync, readdirSync, readFileSync } from 'node:fs'
import { fileURLToPath } from 'node:url'
import { promisify } from 'node:util'
import type { Plugin } from 'vite'
import { parse } from 'yaml'
import * as zod from 'zod'
import { FACTORS } from './core/units/factors'
import { pageParts } from './scripts/pageParts'
import { WITHOUT_SCHEMAS, zodless } from './scripts/zodless'

const root = fileURLToPath(new URL('.', import.meta.url))

/** What lint needs of the build, where its packages are installed. */
const tools = existsSync(`${root}node_modules/@nuxt/eslint`) ? ['@nuxt/eslint'] : []

/** What a script of ours prints, made beside the build: the machine has more than one core. */
async function printedBy(script: string): Promise<string> {
  const tsx = [`${root}node_modules/tsx/dist/cli.mjs`, '--tsconfig', `${root}tsconfig.tools.json`]
  const { stdout } = await promisify(execFile)(process.execPath, [...tsx, root + script], { cwd: root, maxBuffer: 64 * 1024 ** 2 })
  return stdout
}

/** The schemas of the answers: the compiler takes as long for them as all else of the server's part, so they are begun first. */
let schemas: Promise<string> | undefined
const answersModule = () => (schemas ??= printedBy('scripts/answersSchema.ts').then(printed => `export const answers = ${printed}`))

/** The migrations travel inside the build: a virtual module with name and text of each. */
function migrationsModule(): string {
  const folder = `${root}server/db/migrations/`
  const files = readdirSync(folder)
    .filter(name => name.endsWith('.sql'))
    .sort()
  return `export const migrations = ${JSON.stringify(files.map(name => ({ name, sql: readFileSync(folder + name, 'utf8') })))}`
}

/** So do the foods: the files of the reference, read once when it is built. */
function referenceModule(): string {
  const folder = `${root}core/foods/data/`
  const read = (name: string): unknown => parse(readFileSync(folder + name, 'utf8'))
  const apart = ['families.yaml', 'forms.yaml', 'schools.yaml', 'goods.yaml', 'names.yaml', 'measures.yaml']
  const foods = readdirSync(folder)
    .filter(name => name.endsWith('.yaml') && !apart.includes(name))
    .flatMap(name => read(name) as unknown[])
  const [families, forms, schools, goods, names, measures] = apart.map(read)
  return `export const reference = ${JSON.stringify({ families, forms, schools, goods, names, measures, foods })}`
}

/** And the lessons: name and text of each. */
function lessonsModule(): string {
  const folder = `${root}core/practice/lessons/`
  const files = readdirSync(folder).sort()
  return `export const lessons = ${JSON.stringify(files.map(name => ({ name, text: readFileSync(folder + name, 'utf8') })))}`
}

/** The browser gets the factors of units as figures, not the package with its tables. */
const unitFactors = {
  name: 'dulse:unit-factors',
  enforce: 'pre' as const,
  load: (id: string) =>
    id.split('?')[0]!.endsWith('/core/units/factors.ts') ? `export const FACTORS = ${JSON.stringify(FACTORS)}` : undefined,
}

/**
 * Reckoning with dates is the browser's own where it can; a plugin fetches the package where it cannot. What works in a
 * worker brings the package along.
 */
const temporalOfBrowser = {
  name: 'dulse:temporal',
  enforce: 'pre' as const,
  resolveId: (id: string) => (id === 'temporal-polyfill' ? `${root}app/utils/temporal.ts` : undefined),
}

/** And of the routes their addresses, not the schemas that the server checks by. */
const routesLite = {
  name: 'dulse:routes-lite',
  enforce: 'pre' as const,
  async load(id: string) {
    if (!id.split('?')[0]!.endsWith('/shared/api/routes.ts')) return undefined
    const table = await printedBy('scripts/routesLite.ts')
    return `export const ROUTES = ${table}\nexport const ROUTE_NAMES = Object.keys(ROUTES)\nexport const routeOf = name => ROUTES[name]`
  },
}

/** However lines are broken and indented within a text, it is one space. No-break spaces stay. */
const oneSpace = (node: { type: number; content?: unknown }) => {
  if (node.type === 2 && typeof node.content === 'string') node.content = node.content.replace(/[\t\r\n ]+/g, ' ')
}

/** What each page is made of: known when the browser's part is built, which is before the server's. */
let partsOfPages: Record<string, string> = {}
const notePages: Plugin = {
  name: 'dulse:pages',
  generateBundle(_, bundle) {
    partsOfPages = pageParts(bundle, `${root}app`)
  },
}

export default defineNuxtConfig({
  modules: ['@pinia/nuxt', '@pinia/colada-nuxt', '@vueuse/nuxt', '@element-plus/nuxt', '@vite-pwa/nuxt', ...tools],
  $development: { routeRules: { '/**': { ssr: false } } },
  // The household's log lives on its own server and the page in the browser: nothing is gained by
  // rendering twice. Plain `ssr: false` breaks the development server of this version.
  $production: { ssr: false },
  imports: { dirs: ['data'] },
  components: [{ path: '~/components', pathPrefix: false }],
  app: {
    head: {
      title: 'Dulse',
      htmlAttrs: { lang: 'en' },
      meta: [
        { name: 'viewport', content: 'width=device-width, initial-scale=1' },
        { name: 'theme-color', content: '#27211E' },
      ],
      link: [
        { rel: 'icon', type: 'image/svg+xml', href: '/dulse.svg' },
        { rel: 'apple-touch-icon', href: '/icons/180.png' },
        { rel: 'manifest', href: '/manifest.webmanifest' },
      ],
    },
  },
  css: [
    '@fontsource-variable/bricolage-grotesque/index.css',
    '@fontsource-variable/atkinson-hyperlegible-next/index.css',
    '~/assets/theme.css',
    '~/assets/base.css',
  ],
  alias: { '#core': `${root}core` },
  compatibilityDate: '2026-01-01',
  nitro: {
    // What a browser of the house asks for; closer packing takes longer than it saves on a home's own net.
    compressPublicAssets: { gzip: true, brotli: false },
    virtual: {
      '#answers': answersModule,
      '#lessons': lessonsModule,
      '#migrations': migrationsModule,
      '#pageParts': () => `export const pageParts = ${JSON.stringify(partsOfPages)}`,
      '#reference': referenceModule,
    },
    externals: { external: ['pdfkit', 'reflect-metadata'] },
  },
  vite: {
    // A break of lines between words in a template is a space: the formatter sets breaks where it likes.
    vue: { template: { compilerOptions: { whitespace: 'preserve', nodeTransforms: [oneSpace] } } },
    plugins: [unitFactors],
    worker: { format: 'es' },
    build: { reportCompressedSize: false },
    optimizeDeps: {
      include: [
        'comlink',
        'vue-echarts',
        'echarts/core',
        'echarts/charts',
        'echarts/components',
        'echarts/renderers',
        'tinykeys',
        'uuidv7',
        'temporal-polyfill',
      ],
    },
  },
  hooks: {
    'build:before': () => void answersModule(),
    'build:manifest': manifest => {
      // What other pages need is fetched when a page is at rest, not while it is drawn.
      for (const part of Object.values(manifest)) part.prefetch = false
    },
    'vite:extendConfig': (config, { isClient }) => {
      if (!isClient) return
      const plugin = zodless(Object.keys(zod))
      config.plugins?.push(plugin, routesLite, temporalOfBrowser, notePages)
      const rollupOptions = { ...config.build?.rollupOptions, ...WITHOUT_SCHEMAS }
      Object.assign(config, {
        build: { ...config.build, rollupOptions },
        worker: { ...config.worker, plugins: () => [plugin, unitFactors], rollupOptions: WITHOUT_SCHEMAS },
      })
    },
  },
  pwa: {
    strategies: 'injectManifest',
    srcDir: 'sw',
    filename: 'sw.ts',
    registerType: 'prompt',
    injectRegister: false,
    client: { registerPlugin: true },
    injectManifest: {
      // The blend's programme (3.5 MB) is fetched when a blend is mixed.
      globPatterns: ['**/*.{js,css,woff2,svg}', 'icons/*.png'],
      maximumFileSizeToCacheInBytes: 4 * 1024 ** 2,
      // The page without what is on it, for whatever is opened while the server is away.
      additionalManifestEntries: [{ url: '/shell', revision: String(Date.now()) }],
    },
    manifest: {
      id: '/',
      name: 'Dulse',
      short_name: 'Dulse',
      description: 'Planner, calculator and logbook for drying food at home and grinding it to powder',
      start_url: '/',
      display: 'standalone',
      theme_color: '#27211E',
      background_color: '#F4F0E8',
      lang: 'en',
      categories: ['food', 'utilities'],
      icons: [
        { src: '/icons/192.png', sizes: '192x192', type: 'image/png' },
        { src: '/icons/512.png', sizes: '512x512', type: 'image/png' },
        { src: '/icons/maskable.png', sizes: '512x512', type: 'image/png', purpose: 'maskable' },
      ],
      shortcuts: [
        { name: 'Weigh', url: '/?open=log', description: 'Weigh what is in a machine' },
        { name: 'A basket came in', url: '/intake' },
        { name: 'Find', url: '/?open=find' },
      ],
    },
  },
  typescript: { strict: true },
  telemetry: false,
  elementPlus: { importStyle: 'css', themes: ['dark'], cache: false },
  ...(tools.length > 0 && { eslint: { config: { stylistic: false } } }),
})
