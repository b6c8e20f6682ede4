import vue from '@vitejs/plugin-vue'
import { fileURLToPath } from 'node:url'
import { defineConfig } from 'vitest/config'
import vuetify from 'vite-plugin-vuetify'

const api = process.env.SUBSTRATA_API ?? 'http://127.0.0.1:8000'

export default defineConfig(({ command }) => ({
  // Django serves the built files under /static/; the development server stands at the root.
  base: command === 'build' ? '/static/' : '/',
  plugins: [vue(), vuetify({ autoImport: true })],
  resolve: { alias: { '@': fileURLToPath(new URL('./src', import.meta.url)) } },
  server: { proxy: { '/api': api, '/_allauth': api } },
  test: { setupFiles: ['src/testing/setup.ts'], server: { deps: { inline: ['vuetify'] } } },
  build: { target: 'es2022', chunkSizeWarningLimit: 800 },
}))
