import vue from '@vitejs/plugin-vue'
import { fileURLToPath } from 'node:url'
import { defineConfig } from 'vitest/config'
import { VitePWA } from 'vite-plugin-pwa'
import vuetify from 'vite-plugin-vuetify'

const api = process.env.SUBSTRATA_API ?? 'http://127.0.0.1:8000'

export default defineConfig(({ command }) => ({
  // Django serves the built files under /static/; the development server stands at the root.
  base: command === 'build' ? '/static/' : '/',
  plugins: [
    vue(),
    vuetify({ autoImport: true }),
    VitePWA({
      // Registered by the page itself, for the whole site and not only for the files.
      injectRegister: false,
      filename: 'bench-worker.js',
      manifestFilename: 'bench.webmanifest',
      manifest: {
        name: 'Substrata',
        short_name: 'Substrata',
        description: 'A bench for grain-free doughs',
        start_url: '/run',
        scope: '/',
        display: 'standalone',
        background_color: '#f4efe6',
        theme_color: '#96391f',
        icons: [{ src: '/static/mark.svg', sizes: 'any', type: 'image/svg+xml', purpose: 'any' }],
      },
      workbox: {
        globPatterns: ['**/*.{js,css,html,svg,woff2}'],
        // It is served from the root, its files from under /static/.
        inlineWorkboxRuntime: true,
        modifyURLPrefix: { '': 'static/' },
        navigateFallback: null,
        skipWaiting: true,
        clientsClaim: true,
        // Who one is, the words, and the runs: as they were last seen, where there is no network.
        runtimeCaching: [
          {
            // The page itself comes from the network where there is one: a new release is there at once.
            urlPattern: ({ request, url }) => request.mode === 'navigate' && !/^\/(static|api|_allauth)\//.test(url.pathname),
            handler: 'NetworkFirst',
            options: { cacheName: 'page', networkTimeoutSeconds: 6, precacheFallback: { fallbackURL: '/static/index.html' } },
          },
          {
            urlPattern: /\/api\/(me|words)$|\/api\/kitchens\/\d+\/runs(\/\d+)?(\?.*)?$/,
            handler: 'NetworkFirst',
            options: { cacheName: 'bench', networkTimeoutSeconds: 6, cacheableResponse: { statuses: [200] } },
          },
        ],
      },
    }),
  ],
  resolve: { alias: { '@': fileURLToPath(new URL('./src', import.meta.url)) } },
  // The catalog lies beside the page, for the command line and the PDF read it too.
  server: { fs: { allow: ['..'] }, proxy: { '/api': api, '/_allauth': api } },
  test: { setupFiles: ['src/testing/setup.ts'], server: { deps: { inline: ['vuetify'] } } },
  build: { target: 'es2022', chunkSizeWarningLimit: 800 },
}))
