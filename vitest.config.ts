import vue from '@vitejs/plugin-vue'
import { defineConfig } from 'vitest/config'

const shared = {
  testTimeout: 240_000,
  hookTimeout: 240_000,
  setupFiles: ['bootstrap/propertySeed.ts'],
}
const of = (...rooms: string[]): string[] => rooms.map((r) => `${r}/**/*.test.ts`)

export default defineConfig({
  test: {
    maxWorkers: Number(process.env.UNIT_WORKERS ?? 2),
    projects: [
      // What only computes shares its modules: loading them for each file took longer than many of its tests.
      { test: { ...shared, name: 'core', include: of('core', 'contract', 'cli', 'demo'), isolate: false } },
      { plugins: [vue()], test: { ...shared, name: 'web', include: of('web') } },
      { test: { ...shared, name: 'server', include: of('server', 'bootstrap') } },
    ],
  },
})
