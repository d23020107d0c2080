// What must be there before anything else: Node, Debian packages, npm packages. No dependency of its own.
import { execFileSync, spawnSync } from 'node:child_process'
import { existsSync, readdirSync, statSync } from 'node:fs'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'

export const root = fileURLToPath(new URL('..', import.meta.url))
export const isRoot = process.getuid?.() === 0

export function stop(message) {
  console.error(`\n${message}\n`)
  process.exit(1)
}

export function checkNode() {
  const [major, minor] = process.versions.node.split('.').map(Number)
  if (major < 20 || (major === 20 && minor < 19))
    stop(`Undercut needs Node 20.19 or newer; this is ${process.versions.node}.`)
}

/** Newest PostgreSQL that Debian's packages have put here, or null. */
export function postgresBin() {
  const base = '/usr/lib/postgresql'
  if (!existsSync(base)) return null
  const versions = readdirSync(base)
    .filter((v) => existsSync(join(base, v, 'bin', 'postgres')))
    .sort((a, b) => Number(b) - Number(a))
  return versions.length > 0 ? join(base, versions[0], 'bin') : null
}
export const chromium = () => ['/usr/bin/chromium', '/usr/bin/chromium-browser'].find((p) => existsSync(p)) ?? null

/** Installs the Debian packages that are missing, as root; otherwise says which command to run. */
export function debianPackages({ browser = false } = {}) {
  const missing = [...(postgresBin() ? [] : ['postgresql']), ...(browser && !chromium() ? ['chromium'] : [])]
  if (missing.length === 0) return
  const command = `apt-get install -y --no-install-recommends ${missing.join(' ')}`
  if (!isRoot) stop(`Undercut needs ${missing.join(' and ')}. Run this once, then start again:\n\n  sudo ${command}`)
  console.log(`Installing ${missing.join(', ')} ...`)
  const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' }
  spawnSync('apt-get', ['update', '-qq'], { stdio: 'inherit', env })
  const r = spawnSync('apt-get', command.split(' ').slice(1), { stdio: ['ignore', 'ignore', 'inherit'], env })
  if (r.status !== 0 || !postgresBin() || (browser && !chromium()))
    stop(`The packages could not be installed. Try by hand:\n\n  ${command}`)
}

/** npm ci when the lock file is newer than what is installed. */
export function npmPackages() {
  const installed = join(root, 'node_modules', '.package-lock.json')
  const fresh =
    existsSync(installed) && statSync(installed).mtimeMs >= statSync(join(root, 'package-lock.json')).mtimeMs
  if (fresh) return
  console.log('Installing packages ...')
  const env = { ...process.env }
  // Development packages build the app, so they are wanted whatever the environment says.
  delete env.NODE_ENV
  const r = spawnSync('npm', ['ci', '--no-audit', '--no-fund', '--include=dev'], {
    cwd: root,
    stdio: ['ignore', 'ignore', 'inherit'],
    env,
  })
  if (r.status !== 0) stop('npm ci did not succeed; its message stands above.')
}

export function userId(name) {
  try {
    return { uid: Number(execFileSync('id', ['-u', name])), gid: Number(execFileSync('id', ['-g', name])) }
  } catch {
    return null
  }
}
