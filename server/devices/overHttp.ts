import { request } from 'node:http'
import { Readable } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import { deviceCard, jobStatus, plateSeen, type JobStatus } from '../../contract/devices'
import { DeviceTrouble, type At, type DeviceAdapter, type Found, type Job } from './adapter'
import { message } from '../../core/words/message'

/** ms after which a device that says nothing is taken for offline */
const PATIENCE = 4000
/** A card and a state are small; what is longer is no answer of a device. */
const MAX_REPLY = 50_000_000
const WATCH_MS = 300

interface Reply {
  status: number
  body: unknown
}

/** The open device protocol of docs/devices.md, on loopback. */
export const overHttp: DeviceAdapter = {
  async discover(addresses) {
    const found = await Promise.all(
      addresses.map(async (address): Promise<Found | null> => {
        try {
          return { address, card: deviceCard.parse(await ask({ address }, 'GET', '/device')) }
        } catch {
          return null
        }
      }),
    )
    return found.filter((f) => f !== null)
  },
  state: async (device) => (await ask(device, 'GET', '/state')) as Record<string, unknown>,
  send,
  async start(device, what) {
    if ('job' in what) await ask(device, 'POST', `/jobs/${what.job}/start`)
    else await ask(device, 'POST', '/start', what)
  },
  pause: async (device) => void (await ask(device, 'POST', '/pause')),
  resume: async (device) => void (await ask(device, 'POST', '/resume')),
  stop: async (device) => void (await ask(device, 'POST', '/stop')),
  async watch(device, tell, signal) {
    let last = ''
    while (!signal.aborted) {
      const state = await overHttp.state(device).catch(() => null)
      const text = JSON.stringify(state)
      if (text !== last && !signal.aborted) await tell(state)
      last = text
      await new Promise((r) => setTimeout(r, WATCH_MS))
    }
  },
  also: async (device, what, body) => void (await ask(device, 'POST', `/${what}`, body ?? {})),
  look: async (device, job) => plateSeen.parse(await ask(device, 'GET', `/jobs/${job}/plate`)),
}

async function send(device: At, job: Job, progress: (sent: number) => void, signal: AbortSignal): Promise<JobStatus> {
  const there = jobStatus.safeParse(
    await ask(device, 'GET', `/jobs/${job.id}`).catch((e: unknown) => {
      if (e instanceof DeviceTrouble && e.code === 'no-such-job') return null
      throw e
    }),
  )
  const known = there.success && there.data.total === job.size && !there.data.problem ? there.data : null
  if (known?.ready) return known
  const from = known && known.received < job.size ? known.received : 0
  progress(from)
  const answer = await new Promise<Reply>((done, fail) => {
    const req = request(`${device.address}/jobs/${job.id}`, {
      method: 'PUT',
      signal,
      headers: {
        'content-type': 'application/zip',
        'content-length': job.size - from,
        'content-range': `bytes ${from}-${job.size - 1}/${job.size}`,
      },
    })
    let refused = false
    req.on('response', (res) => {
      refused = true
      read(res).then(done, fail)
    })
    let sent = from
    const counted = async function* (): AsyncGenerator<Uint8Array> {
      for await (const chunk of job.read(from)) {
        yield chunk
        progress((sent += chunk.length))
      }
    }
    // A device that refuses answers before all is sent, and then hears no more of it.
    pipeline(Readable.from(counted(), { objectMode: false }), req).catch((e: unknown) => {
      if (!refused) fail(e instanceof Error ? e : new Error(String(e)))
    })
  }).catch((e: unknown) => {
    if (signal.aborted) throw e
    throw offline(e)
  })
  return jobStatus.parse(settle(answer))
}

async function ask(device: At, method: string, path: string, body?: object): Promise<unknown> {
  const text = body === undefined ? '' : JSON.stringify(body)
  const answer = await new Promise<Reply>((done, fail) => {
    const req = request(`${device.address}${path}`, {
      method,
      timeout: PATIENCE,
      headers:
        body === undefined ? {} : { 'content-type': 'application/json', 'content-length': Buffer.byteLength(text) },
    })
    req.on('timeout', () => req.destroy(new Error('no answer')))
    req.on('error', fail)
    req.on('response', (res) => read(res).then(done, fail))
    req.end(text)
  }).catch((e: unknown) => {
    throw offline(e)
  })
  return settle(answer)
}

async function read(res: import('node:http').IncomingMessage): Promise<Reply> {
  const parts: Buffer[] = []
  let size = 0
  for await (const part of res as AsyncIterable<Buffer>) {
    parts.push(part)
    if ((size += part.length) > MAX_REPLY) throw new Error('The answer does not end.')
  }
  const text = Buffer.concat(parts).toString('utf8')
  return { status: res.statusCode ?? 0, body: text ? JSON.parse(text) : null }
}

function settle({ status, body }: Reply): unknown {
  if (status < 400) return body
  const p = (body ?? {}) as { type?: string; detail?: string }
  const code = String(p.type ?? '').replace('urn:undercut:', '') || 'refused'
  throw new DeviceTrouble('refused', code, p.detail ?? message('refusals.device.refused', { status }), p)
}

const offline = (e: unknown): DeviceTrouble =>
  new DeviceTrouble(
    'offline',
    'offline',
    message('refusals.device.offline', { why: e instanceof Error ? e.message : String(e) }),
  )
