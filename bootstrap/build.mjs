// Builds what runs: Node's side bundled by esbuild, the web app by Vite. Skipped when nothing changed.
import { createHash } from 'node:crypto'
import { existsSync, readdirSync, readFileSync, renameSync, rmSync, statSync, utimesSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { brotliCompressSync, constants } from 'node:zlib'
import { root } from './install.mjs'

const ROOMS = [
  'core',
  'contract',
  'server',
  'web',
  'demo',
  'cli',
  'bench',
  'vite.config.ts',
  'docs',
  'bootstrap/build.mjs',
  'bootstrap/markdownPage.mjs',
]
const ENTRIES = {
  server: 'server/main.ts',
  worker: 'server/worker.ts',
  kernel: 'server/jobs/kernel.ts',
  slicer: 'server/jobs/slicer.ts',
  cli: 'cli/index.ts',
  simulated: 'server/simulated/main.ts',
  seed: 'demo/seed.ts',
  bench: 'bench/run.ts',
}

function newest(path) {
  const s = statSync(path)
  if (!s.isDirectory()) return s.mtimeMs
  return Math.max(s.mtimeMs, ...readdirSync(path).map((n) => newest(join(path, n))))
}

/** Which packages it was built with: the file's time changes whenever npm looks at it, and is no reason to build. */
const packages = () =>
  createHash('sha256')
    .update(readFileSync(join(root, 'package-lock.json')))
    .digest('hex')

function upToDate(stamp) {
  // A test run has built already; a source that is edited meanwhile must not change what it tests.
  if (process.env.UNDERCUT_BUILT === '1') return true
  return (
    existsSync(stamp) &&
    readFileSync(stamp, 'utf8') === packages() &&
    statSync(stamp).mtimeMs >=
      Math.max(...ROOMS.filter((r) => existsSync(join(root, r))).map((r) => newest(join(root, r))))
  )
}

/** esbuild, not a loader at run time: kernels run as plain functions, and threads start at once. */
export async function buildNode() {
  const stamp = join(root, 'dist', 'node', '.stamp')
  if (upToDate(stamp)) return
  const began = Date.now()
  const { build } = await import('esbuild')
  const entryPoints = Object.fromEntries(
    Object.entries(ENTRIES)
      .filter(([, f]) => existsSync(join(root, f)))
      .map(([n, f]) => [n, join(root, f)]),
  )
  await build({
    entryPoints,
    outdir: join(root, 'dist', 'node'),
    outExtension: { '.js': '.mjs' },
    bundle: true,
    platform: 'node',
    format: 'esm',
    target: 'node20',
    packages: 'external',
    sourcemap: true,
    logLevel: 'error',
  })
  writeFileSync(stamp, packages())
  utimesSync(stamp, began / 1000, began / 1000)
}

/** Beside each larger text its compressed copy, which the server sends to whoever takes it. */
function compress(folder) {
  for (const name of readdirSync(folder, { recursive: true })) {
    const path = join(folder, name)
    if (!/\.(js|css|html|svg|wasm|json)$/.test(name) || statSync(path).size < 1024) continue
    const params = { [constants.BROTLI_PARAM_QUALITY]: 9 }
    writeFileSync(`${path}.br`, brotliCompressSync(readFileSync(path), { params }))
  }
}

export async function buildWeb() {
  const stamp = join(root, 'dist', 'web', '.stamp')
  if (upToDate(stamp)) return
  console.log('Building the web app ...')
  const began = Date.now()
  const { build } = await import('vite')
  // Made beside its place and moved there when whole: whoever is served from it meanwhile loses nothing half way.
  const made = join(root, 'dist', `web.${process.pid}`),
    place = join(root, 'dist', 'web')
  await build({
    root: join(root, 'web'),
    configFile: join(root, 'vite.config.ts'),
    logLevel: 'error',
    build: { outDir: made, emptyOutDir: true },
  })
  compress(made)
  rmSync(place, { recursive: true, force: true })
  renameSync(made, place)
  writeFileSync(stamp, packages())
  utimesSync(stamp, began / 1000, began / 1000)
}
