// An application behind a sign-in: rendered in the browser, served by Nitro with the API beside it.
export default defineNuxtConfig({
  compatibilityDate: '2026-06-01',
  ssr: false,
  devtools: { enabled: false },
  telemetry: false,
  modules: ['@pinia/nuxt', '@element-plus/nuxt'],
  css: [
    '@fontsource-variable/newsreader/standard.css',
    '@fontsource-variable/newsreader/standard-italic.css',
    '@fontsource-variable/commissioner/wght.css',
    '~/styles/tokens.css',
    '~/styles/base.css',
    '~/styles/element.css',
  ],
  components: [{ path: '~/ui', pathPrefix: false }],
  imports: { dirs: ['composables'] },
  elementPlus: { importStyle: 'css', defaultLocale: 'en' },
  spaLoadingTemplate: 'spa-loading-template.html',
  app: {
    head: {
      htmlAttrs: { lang: 'en' },
      title: 'Northtide',
      meta: [{ name: 'viewport', content: 'width=device-width, initial-scale=1' }],
      link: [{ rel: 'icon', type: 'image/svg+xml', href: '/mark.svg' }],
    },
  },
  vite: { worker: { format: 'es' } },
  nitro: {
    compressPublicAssets: true,
    // What a PDF is set in: such a file carries its letters itself, and takes no compressed variable fonts.
    serverAssets: [
      {
        baseName: 'pdf-fonts',
        dir: `${import.meta.dirname}/node_modules/@fontsource/commissioner/files`,
        pattern: 'commissioner-{latin,latin-ext,greek,cyrillic,vietnamese}-{400,600}-normal.woff',
      },
    ],
    // Node takes these packages by their "module-sync" entry, which the tracing of dependencies does not know.
    externals: {
      traceInclude: ['async-function', 'async-generator-function', 'generator-function'].flatMap(name =>
        ['require.mjs', 'index.mjs'].map(file => `node_modules/${name}/${file}`),
      ),
    },
  },
})
