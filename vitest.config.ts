import { readdirSync, readFileSync } from 'node:fs'
import vue from '@vitejs/plugin-vue'
import { defineConfig } from 'vitest/config'

const shared = {
  // Threads start sooner than processes, and share what was compiled.
  pool: 'threads',
  testTimeout: 720_000,
  hookTimeout: 720_000,
  setupFiles: ['bootstrap/propertySeed.ts'],
}
/** Every page has the catalogue. */
const page = { setupFiles: [...shared.setupFiles, 'bootstrap/pageRegion.ts', 'bootstrap/pageWords.ts'] }
const of = (...rooms: string[]): string[] => rooms.map((r) => `${r}/**/*.test.ts`)

/** Tests of the page that replace modules. */
const mocking = readdirSync(new URL('web', import.meta.url), { recursive: true, encoding: 'utf8' })
  .map((file) => `web/${file}`)
  .filter(
    (file) => file.endsWith('.test.ts') && readFileSync(new URL(file, import.meta.url), 'utf8').includes('vi.mock('),
  )

export default defineConfig({
  test: {
    maxWorkers: Number(process.env.UNIT_WORKERS ?? 2),
    projects: [
      // What only computes shares its modules: loading them for each file took longer than many of its tests.
      { test: { ...shared, name: 'core', include: of('core', 'contract', 'cli', 'demo'), isolate: false } },
      // Pages too, but for those that put something else in a module's place: the next would find it there.
      {
        plugins: [vue()],
        test: { ...shared, ...page, name: 'web', include: of('web'), exclude: mocking, isolate: false },
      },
      { plugins: [vue()], test: { ...shared, ...page, name: 'web alone', include: mocking } },
      { test: { ...shared, name: 'server', include: of('server', 'bootstrap') } },
    ],
  },
})
