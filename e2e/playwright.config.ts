import { join } from 'node:path'
import { defineConfig } from '@playwright/test'

/** Drives the real start command, a workshop for each worker: see workshop.ts. */
export default defineConfig({
  testDir: '.',
  // Limits, not waits: for a machine on which others work too, or that is given a third of its speed.
  timeout: 1_800_000,
  // Files side by side, the tests of one file in order.
  workers: Number(process.env.BROWSER_WORKERS ?? 2),
  retries: 0,
  outputDir: join(process.env.UNDERCUT_WORK ?? '/tmp', 'e2e-results'),
  reporter: [
    ['list'],
    ['json', process.env.PLAYWRIGHT_JSON_OUTPUT_NAME ? { outputFile: process.env.PLAYWRIGHT_JSON_OUTPUT_NAME } : {}],
  ],
  expect: { timeout: 360_000 },
  use: {
    viewport: { width: 1280, height: 800 },
    locale: 'en-GB',
    // A quarter of the pixels: the processor draws them all here, and drawing was half of a run.
    deviceScaleFactor: 0.5,
    actionTimeout: 180_000,
    acceptDownloads: true,
    // The way from one view to the next is not what is tested, and costs the processor most of a run.
    contextOptions: { reducedMotion: 'reduce' },
    screenshot: 'only-on-failure',
    launchOptions: {
      executablePath: process.env.CHROMIUM || '/usr/bin/chromium',
      args: [
        '--no-sandbox',
        '--use-angle=swiftshader',
        '--enable-unsafe-swiftshader',
        // The page itself is put together without the graphics that the processor would have to stand in for.
        '--disable-gpu-compositing',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
        '--no-first-run',
      ],
    },
  },
})
