// npm test: sets up what it needs, runs every check, and closes with one plain line.
import { spawn } from 'node:child_process'
import { chmodSync, mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { checkNode, chromium, debianPackages, npmPackages, root } from './install.mjs'

checkNode()
debianPackages({ browser: true })
npmPackages()
const { buildNode, buildWeb } = await import('./build.mjs')
const { startCluster } = await import('./postgres.mjs')

const began = Date.now()
const seconds = () => `${Math.round((Date.now() - began) / 1000)} s`
let passed = 0,
  failed = 0
/** What failed and why, said once more at the end: in a long output it is otherwise looked for. */
const failures = []
const children = new Set()
const bin = (name) => join(root, 'node_modules', '.bin', name)

/** Runs a command and keeps what it prints, so that groups that run side by side are read one after the other. */
const run = (command, args, env = {}) =>
  new Promise((done) => {
    const child = spawn(command, args, {
      cwd: root,
      stdio: ['ignore', 'pipe', 'pipe'],
      env: { ...process.env, ...env },
    })
    children.add(child)
    let said = ''
    for (const stream of [child.stdout, child.stderr])
      stream.setEncoding('utf8').on('data', (text) => {
        said += text
      })
    const end = (code) => {
      children.delete(child)
      done({ code: code ?? 1, said })
    }
    child.on('close', end)
    child.on('error', (e) => {
      said += String(e)
      end(1)
    })
  })

/** One command that passes or fails as a whole. */
async function check(name, command, args) {
  const { code, said } = await run(command, args)
  console.log(`\n== ${name}: ${code === 0 ? 'passed' : 'failed'} after ${seconds()}`)
  if (code === 0) passed++
  else {
    failed++
    failures.push([name, said])
  }
}

/** A runner that counts its own tests. A run that failed without naming a test still counts as one failure. */
async function tests(name, command, args, env, count) {
  const { code, said } = await run(command, args, env)
  let p = 0,
    f = 0,
    why = []
  try {
    ;[p, f, why] = count()
  } catch {
    f = 1
  }
  if (code !== 0 && f === 0) f = 1
  if (f > 0 && why.length === 0) why = [[name, said]]
  failures.push(...why)
  console.log(`\n== ${name}: ${p} passed, ${f} failed after ${seconds()}`)
  console.log(said)
  passed += p
  failed += f
}

const work = mkdtempSync(join(tmpdir(), 'undercut-test-'))
// PostgreSQL runs as a user of its own, who has to reach its folder.
chmodSync(work, 0o755)
const cluster = await startCluster(join(work, 'cluster'))
const end = () => {
  for (const child of children) child.kill('SIGTERM')
  cluster.stop()
  cluster.remove()
  rmSync(work, { recursive: true, force: true })
}
process.on('SIGINT', () => {
  end()
  process.exit(130)
})

// What needs no build follows the groups, one each, as they end.
const types = () => check('types', bin('vue-tsc'), ['--noEmit', '-p', '.'])
const lint = () => check('lint', bin('eslint'), ['.', '--max-warnings', '0'])
async function style() {
  await check('format', bin('prettier'), ['--check', '--log-level', 'warn', '.'])
  await check('rooms', process.execPath, [join(root, 'bootstrap', 'rooms.mjs')])
}

try {
  await Promise.all([buildNode(), buildWeb()])
  console.log(`Built after ${seconds()}.`)
  const env = { DATABASE_URL: cluster.url, CHROMIUM: chromium() ?? '', NODE_ENV: 'test', UNDERCUT_BUILT: '1' }
  const browser = join(work, 'browser.json')
  /** Vitest over some folders. */
  const vitest = (name, workers, ...folders) => {
    const report = join(work, `${name}.json`)
    return tests(
      name,
      bin('vitest'),
      ['run', ...folders, '--reporter=default', '--reporter=json', `--outputFile.json=${report}`],
      { ...env, UNIT_WORKERS: workers },
      () => {
        const r = JSON.parse(readFileSync(report, 'utf8'))
        return [
          r.numPassedTests,
          r.numFailedTests + r.numFailedTestSuites * (r.numFailedTests === 0 ? 1 : 0),
          r.testResults.flatMap((file) => [
            ...(file.status === 'failed' && file.message ? [[file.name, file.message]] : []),
            ...file.assertionResults
              .filter((t) => t.status === 'failed')
              .map((t) => [`${file.name}: ${t.fullName}`, t.failureMessages.join('\n')]),
          ]),
        ]
      },
    )
  }
  await Promise.all([
    tests(
      'browser',
      bin('playwright'),
      ['test', '-c', 'e2e/playwright.config.ts'],
      { ...env, PLAYWRIGHT_JSON_OUTPUT_NAME: browser, UNDERCUT_WORK: work },
      () => {
        const { stats, suites, errors } = JSON.parse(readFileSync(browser, 'utf8'))
        /** Suites hold suites: of files, then of what `describe` groups. */
        const failedIn = (suite) => [
          ...(suite.suites ?? []).flatMap(failedIn),
          ...(suite.specs ?? [])
            .filter((spec) => !spec.ok)
            .map((spec) => [
              `${spec.file}: ${spec.title}`,
              spec.tests.flatMap((t) => t.results.flatMap((r) => r.errors.map((e) => e.message))).join('\n'),
            ]),
        ]
        return [
          stats.expected,
          stats.unexpected + stats.flaky,
          [...suites.flatMap(failedIn), ...errors.map((e) => ['browser tests', e.message])],
        ]
      },
    ).then(lint),
    // Two workers: the others are done before one would be.
    vitest('unit', '2', 'core/', 'contract/', 'cli/', 'demo/', 'web/').then(style),
    // Servers wait more than they compute.
    vitest('server', '1', 'server/', 'bootstrap/').then(types),
  ])
} finally {
  end()
}
for (const [what, why] of failures) console.log(`\nFailed: ${what}\n${why.split('\n').slice(0, 60).join('\n')}`)
console.log(`\nAfter ${seconds()}:\n${passed} passed, ${failed} failed`)
process.exit(failed === 0 && passed > 0 ? 0 : 1)
