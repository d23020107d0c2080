import { defineConfig } from 'vitest/config'

/** For mutants only: the tests of the rooms that are changed, for those of the whole program would take days. */
export default defineConfig({
  root: new URL('..', import.meta.url).pathname,
  test: {
    testTimeout: 60_000,
    setupFiles: ['bootstrap/propertySeed.ts'],
    include: ['plan', 'findings', 'paint/recipes', 'paint/order', 'print/support'].map((r) => `core/${r}/**/*.test.ts`),
  },
})
