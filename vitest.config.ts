import vue from '@vitejs/plugin-vue'
import { defineConfig } from 'vitest/config'

export default defineConfig({
  plugins: [vue()],
  test: {
    include: [
      'bootstrap/**/*.test.ts',
      'core/**/*.test.ts',
      'contract/**/*.test.ts',
      'cli/**/*.test.ts',
      'server/**/*.test.ts',
      'web/**/*.test.ts',
      'demo/**/*.test.ts',
    ],
    testTimeout: 240_000,
    hookTimeout: 240_000,
    maxWorkers: Number(process.env.UNIT_WORKERS ?? 2),
    setupFiles: ['bootstrap/propertySeed.ts'],
  },
})
