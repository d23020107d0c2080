// A PostgreSQL cluster of Undercut's own, on 127.0.0.1 and a free port.
import { spawnSync } from 'node:child_process'
import { createHash, randomBytes } from 'node:crypto'
import { chownSync, existsSync, mkdirSync, readFileSync, renameSync, rmSync, writeFileSync } from 'node:fs'
import { createServer } from 'node:net'
import { join, resolve } from 'node:path'
import { isRoot, postgresBin, stop, userId } from './install.mjs'

export const freePort = (wanted = 0) =>
  new Promise((done) => {
    const probe = createServer()
    probe.once('error', () => done(wanted === 0 ? null : freePort(0)))
    probe.listen(wanted, '127.0.0.1', () => {
      const { port } = probe.address()
      probe.close(() => done(port))
    })
  })

/** PostgreSQL refuses to run as root, so root lends it the packaged user. */
function owner() {
  if (!isRoot) return {}
  const user = userId('postgres') ?? userId('nobody')
  if (!user) stop('There is no unprivileged user to run PostgreSQL as. Create one called "postgres".')
  return user
}

/** The folder asked for, or one under /var/lib that the server's user can reach when a private home bars the way. */
function placeFor(folder, as) {
  if (as.uid === undefined) return folder
  const reach = spawnSync('test', ['-x', resolve(folder, '..')], { uid: as.uid, gid: as.gid })
  const probe = join(resolve(folder, '..'))
  if (reach.status === 0 && spawnSync('ls', [probe], { uid: as.uid, gid: as.gid, stdio: 'ignore' }).status === 0)
    return folder
  return join('/var/lib/undercut', createHash('sha256').update(folder).digest('hex').slice(0, 12))
}

/**
 * Starts the cluster, making it first if it is not there. A cluster is made beside its place and moved there when
 * whole; one left running by a crash is stopped first.
 */
export async function startCluster(folder) {
  mkdirSync(folder, { recursive: true })
  const as = owner(),
    bin = postgresBin()
  const home = placeFor(folder, as),
    data = join(home, 'data'),
    making = join(home, 'data.new'),
    log = join(home, 'postgres.log')
  mkdirSync(home, { recursive: true })
  if (as.uid !== undefined) chownSync(home, as.uid, as.gid)
  const run = (tool, args, options = {}) =>
    spawnSync(join(bin, tool), args, { ...as, encoding: 'utf8', cwd: '/', ...options })
  const secret = join(folder, 'secret')
  if (!existsSync(secret) || !existsSync(data)) {
    rmSync(making, { recursive: true, force: true })
    if (existsSync(data)) renameSync(data, `${data}.orphan-${Date.now()}`)
    writeFileSync(secret, randomBytes(24).toString('hex'), { mode: 0o600 })
    const pw = join(home, 'pw')
    writeFileSync(pw, readFileSync(secret), { mode: 0o600 })
    if (as.uid !== undefined) chownSync(pw, as.uid, as.gid)
    const r = run('initdb', [
      '-D',
      making,
      '-U',
      'undercut',
      '--auth=scram-sha-256',
      `--pwfile=${pw}`,
      '--encoding=UTF8',
      '--locale=C',
      '--no-sync',
    ])
    rmSync(pw, { force: true })
    if (r.status !== 0) stop(`The database could not be made:\n${r.stderr || r.error}`)
    renameSync(making, data)
  }
  if (run('pg_ctl', ['status', '-D', data]).status === 0) run('pg_ctl', ['stop', '-D', data, '-m', 'fast', '-w'])
  for (let attempt = 0; ; attempt++) {
    const port = await freePort()
    const r = run(
      'pg_ctl',
      [
        'start',
        '-w',
        '-t',
        '60',
        '-D',
        data,
        '-l',
        log,
        '-o',
        `-p ${port} -c listen_addresses=127.0.0.1 -c unix_socket_directories= -c max_connections=80 -c shared_buffers=128MB`,
      ],
      { stdio: 'ignore' },
    )
    if (r.status === 0) {
      const url = `postgres://undercut:${readFileSync(secret, 'utf8')}@127.0.0.1:${port}`
      return {
        url: `${url}/postgres`,
        stop: () => {
          run('pg_ctl', ['stop', '-D', data, '-m', 'fast', '-w', '-t', '30'])
        },
        remove: () => {
          rmSync(home, { recursive: true, force: true })
          rmSync(folder, { recursive: true, force: true })
        },
      }
    }
    // Someone took the port between looking and starting: once or twice is bad luck.
    if (attempt === 2) stop(`The database does not start; its log is ${log}.`)
  }
}
