import { join } from 'node:path'
import { defineConfig } from '@playwright/test'

const port = 4957
process.env.UNDERCUT_E2E = `http://127.0.0.1:${port}`

/** Drives the real start command on an empty workshop. */
export default defineConfig({
  testDir: '.',
  timeout: 600_000,
  workers: 1,
  retries: 0,
  outputDir: join(process.env.UNDERCUT_WORK ?? '/tmp', 'e2e-results'),
  reporter: [
    ['list'],
    ['json', process.env.PLAYWRIGHT_JSON_OUTPUT_NAME ? { outputFile: process.env.PLAYWRIGHT_JSON_OUTPUT_NAME } : {}],
  ],
  expect: { timeout: 120_000 },
  use: {
    baseURL: process.env.UNDERCUT_E2E,
    viewport: { width: 1280, height: 800 },
    actionTimeout: 60_000,
    acceptDownloads: true,
    screenshot: 'only-on-failure',
    launchOptions: {
      executablePath: process.env.CHROMIUM || '/usr/bin/chromium',
      args: [
        '--no-sandbox',
        '--use-angle=swiftshader',
        '--enable-unsafe-swiftshader',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
        '--no-first-run',
      ],
    },
  },
  webServer: {
    command: 'node bootstrap/start.mjs',
    cwd: join(import.meta.dirname, '..'),
    url: `http://127.0.0.1:${port}/api/workshop`,
    timeout: 180_000,
    gracefulShutdown: { signal: 'SIGINT', timeout: 30_000 },
    env: {
      PORT: String(port),
      UNDERCUT_DEMO: '0',
      UNDERCUT_STANDINS: join(import.meta.dirname, 'fleet.json'),
      UNDERCUT_DATA: join(process.env.UNDERCUT_WORK ?? '/tmp/undercut-e2e', 'data'),
    },
    stdout: 'ignore',
    stderr: 'pipe',
  },
})
