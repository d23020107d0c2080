// npm start: from a fresh machine to the open workshop. Ctrl-C stops all of it.
import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { join, resolve } from 'node:path'
import { checkNode, debianPackages, npmPackages, root, stop } from './install.mjs'

checkNode()
debianPackages()
npmPackages()
const { buildNode, buildWeb } = await import('./build.mjs')
await buildNode()
await buildWeb()
const { freePort, startCluster } = await import('./postgres.mjs')
const { launch, until } = await import('./processes.mjs')

const folder = resolve(process.env.UNDERCUT_DATA ?? join(root, '.undercut'))
mkdirSync(folder, { recursive: true })
const runFile = join(folder, 'run.json')
if (existsSync(runFile)) {
  // The file of a crashed start names a process that is gone, or one that is not ours any more.
  try {
    const { pid, address } = JSON.parse(readFileSync(runFile, 'utf8'))
    if (pid !== process.pid && readFileSync(`/proc/${pid}/cmdline`, 'utf8').includes('start.mjs'))
      stop(`Undercut is running already: ${address}`)
  } catch {
    /* stale */
  }
}
const cluster = await startCluster(folder)
const port = await freePort(Number(process.env.PORT ?? 4870))
const address = `http://127.0.0.1:${port}`
writeFileSync(runFile, JSON.stringify({ pid: process.pid, address }))

let workerReady = () => {}
const workerUp = new Promise((r) => {
  workerReady = r
})

// Devices to try things out on, each a process of its own on loopback: UNDERCUT_SIMULATED=0 leaves them out, a path names
// others; it was called UNDERCUT_STANDINS once.
const fleetFile = process.env.UNDERCUT_SIMULATED || process.env.UNDERCUT_STANDINS || join(root, 'demo', 'fleet.json')
const simulated = []
for (const config of fleetFile === '0' ? [] : JSON.parse(readFileSync(fleetFile, 'utf8'))) {
  const at = await freePort(port + 10 + simulated.length)
  const told = { ...config, port: at, folder: join(folder, 'devices', config.serial) }
  simulated.push({
    at,
    run: launch('simulated', { UNDERCUT_SIMULATED_DEVICE: JSON.stringify(told) }, { restart: true }),
  })
}
const env = {
  DATABASE_URL: cluster.url,
  PORT: String(port),
  NODE_ENV: 'production',
  UNDERCUT_DEVICES: simulated.map((s) => `http://127.0.0.1:${s.at}`).join(' '),
}
const api = launch('server', env, { restart: true })
let closing = false,
  worker = null,
  seed = null
const close = async () => {
  if (closing) return
  closing = true
  console.log('\nStopping ...')
  await Promise.all([seed?.stop(), worker?.stop(), api.stop(), ...simulated.map((s) => s.run.stop())])
  cluster.stop()
  rmSync(runFile, { force: true })
  process.exit(0)
}
process.on('SIGINT', () => void close())
process.on('SIGTERM', () => void close())
if (!(await until(`${address}/api/health`))) {
  console.error('The server did not answer within a minute.')
  await close()
}
worker = launch('worker', env, {
  restart: true,
  onLine: (l) => {
    if (l === 'worker ready') workerReady()
  },
})
await workerUp
console.log(`\nUndercut is open at ${address}   (Ctrl-C stops it)\n`)
if (process.env.UNDERCUT_DEMO !== '0') seed = launch('seed', { ...env, UNDERCUT_API: address })
