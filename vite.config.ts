import { fileURLToPath } from 'node:url'
import vue from '@vitejs/plugin-vue'
import { defineConfig } from 'vite'
import { markdownPage } from './bootstrap/markdownPage.mjs'

const here = (path: string): string => fileURLToPath(new URL(path, import.meta.url))

export default defineConfig({
  root: here('web'),
  plugins: [markdownPage(), vue()],
  build: { outDir: here('dist/web'), emptyOutDir: true, target: 'es2022', chunkSizeWarningLimit: 1500 },
  worker: { format: 'es' },
  css: {
    preprocessorOptions: {
      scss: { quietDeps: true, silenceDeprecations: ['import', 'global-builtin', 'color-functions', 'if-function'] },
    },
  },
  server: { proxy: { '/api': 'http://127.0.0.1:4870' } },
})
