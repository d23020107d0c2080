// npm test: sets up what it needs, runs every check, and closes with one plain line.
import { spawn } from 'node:child_process'
import { mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { checkNode, chromium, debianPackages, npmPackages, root } from './install.mjs'

checkNode()
debianPackages({ browser: true })
npmPackages()
const { buildNode, buildWeb } = await import('./build.mjs')
const { startCluster } = await import('./postgres.mjs')

let passed = 0,
  failed = 0
const bin = (name) => join(root, 'node_modules', '.bin', name)
const run = (command, args, env = {}) =>
  new Promise((done) => {
    const child = spawn(command, args, {
      cwd: root,
      stdio: ['ignore', 'inherit', 'inherit'],
      env: { ...process.env, ...env },
    })
    child.on('exit', (code) => done(code ?? 1))
    child.on('error', () => done(1))
  })
async function check(name, command, args) {
  console.log(`\n== ${name}`)
  if ((await run(command, args)) === 0) passed++
  else {
    failed++
    console.log(`== ${name} failed`)
  }
}

await check('types', bin('vue-tsc'), ['--noEmit', '-p', '.'])
await check('lint', bin('eslint'), ['.', '--max-warnings', '0'])
await check('format', bin('prettier'), ['--check', '--log-level', 'warn', '.'])
await check('rooms', bin('depcruise'), [
  '--config',
  '.dependency-cruiser.cjs',
  'core',
  'contract',
  'server',
  'web',
  'demo',
  'cli',
])

const work = mkdtempSync(join(tmpdir(), 'undercut-test-'))
const cluster = await startCluster(join(work, 'cluster'))
const end = () => {
  cluster.stop()
  cluster.remove()
  rmSync(work, { recursive: true, force: true })
}
process.on('SIGINT', () => {
  end()
  process.exit(130)
})
try {
  await buildNode()
  await buildWeb()
  const env = { DATABASE_URL: cluster.url, CHROMIUM: chromium() ?? '', NODE_ENV: 'test' }
  console.log('\n== unit and server')
  const unit = join(work, 'unit.json')
  const unitCode = await run(
    bin('vitest'),
    ['run', '--reporter=default', '--reporter=json', `--outputFile.json=${unit}`],
    env,
  )
  count(unitCode, () => {
    const r = JSON.parse(readFileSync(unit, 'utf8'))
    return [r.numPassedTests, r.numFailedTests + r.numFailedTestSuites * (r.numFailedTests === 0 ? 1 : 0)]
  })
  console.log('\n== browser')
  const e2e = join(work, 'e2e.json')
  const e2eCode = await run(bin('playwright'), ['test', '-c', 'e2e/playwright.config.ts'], {
    ...env,
    PLAYWRIGHT_JSON_OUTPUT_NAME: e2e,
    UNDERCUT_WORK: work,
  })
  count(e2eCode, () => {
    const { stats } = JSON.parse(readFileSync(e2e, 'utf8'))
    return [stats.expected, stats.unexpected + stats.flaky]
  })
} finally {
  end()
}

/** A run that failed without naming a test still counts as one failure. */
function count(code, read) {
  let p = 0,
    f = 0
  try {
    ;[p, f] = read()
  } catch {
    f = 1
  }
  passed += p
  failed += code !== 0 && f === 0 ? 1 : f
}
console.log(`\n${passed} passed, ${failed} failed`)
process.exit(failed === 0 && passed > 0 ? 0 : 1)
