import { createPinia, setActivePinia } from 'pinia'
import { vi } from 'vitest'
import type { OperationInput, OperationRecord } from '../../contract/operations'

/**
 * A page without stores, clocks or news, whose requests are answered by a test.
 *
 * @param hears is given what sends news to the page as the server would
 */
export function fakePage(
  answer: (url: string, init?: RequestInit) => Promise<Response>,
  hears: (send: (news: object) => void) => void = () => undefined,
): void {
  vi.stubGlobal('fetch', answer)
  vi.stubGlobal(
    'EventSource',
    class {
      set onmessage(hear: (e: { data: string }) => void) {
        hears((news) => hear({ data: JSON.stringify(news) }))
      }
      onerror = null
    },
  )
  vi.stubGlobal('setInterval', () => 0)
  setActivePinia(createPinia())
}

/**
 * Waits until answers that take up to `ms` milliseconds have been taken in. It waits one millisecond at a time: after a
 * stall of the machine timers that follow one another run one each time, and a single long one would be over first.
 */
export async function settled(ms = 10): Promise<void> {
  for (let i = 0; i < ms; i++) await new Promise((r) => setTimeout(r, 1))
}

export const PIECE = '11111111-1111-4111-8111-111111111111',
  SCULPT = '33333333-3333-4333-8333-333333333333',
  PART = '22222222-2222-4222-8222-222222222222'
interface Body {
  version: number
  operations: OperationRecord[]
  check: { kind: string }
  mesh: string
  op: OperationRecord
}
/** What a check or a trial reports: always the same, or by what it was asked. */
type Answer = object | null | ((asked: never, mesh: string) => object | null)
/** A part besides the first: what was done to it, and by which version. */
export interface OtherPart {
  id: string
  name: string
  operations: OperationRecord[]
  version: number
}
/** The mesh of another part, by its name and the step that made it; a hash, as operations name other parts by it. */
export const meshOfOther = (name: string, step = 'sculpt'): string =>
  [...`${name}-${step}`]
    .map((c) => c.charCodeAt(0).toString(16))
    .join('')
    .padEnd(64, '0')
    .slice(0, 64)
export const otherPart = (id: string, name: string, operations: readonly OperationInput[] = []): OtherPart => ({
  id,
  name,
  operations: operations as OperationRecord[],
  version: 1,
})
/** A thing of the stock as the server gives it. */
export const item = (kind: string, id: string, data: object): object => ({ id, kind, version: 1, data })
export const MEASURES = {
  size: [10, 10, 20],
  box: { min: [0, 0, 0], max: [10, 10, 20] },
  area: 1,
  volume: 1,
  centre: [5, 5, 10],
}
/** A plan without steps, as the server gives it. */
export const planReply = (more: object = {}): object => ({
  finish: Date.now() + 86_400_000,
  impossible: [],
  over: { primer: 0.03, sanded: 0.04 },
  sprayRefused: null,
  pending: [],
  pairs: [],
  steps: [],
  ...more,
})
/** A step of the bench plan that nobody has begun. */
export const planStep = (key: string, more: object = {}): object => ({
  key,
  phase: 'Clean',
  title: key,
  why: '',
  handsOn: 600,
  waiting: 0,
  needs: 'bench',
  cautions: [],
  materials: [],
  tools: [],
  lines: [],
  risks: [],
  window: null,
  uses: [],
  setup: null,
  recoat: null,
  holds: false,
  sprays: false,
  begunAt: null,
  took: null,
  dropped: false,
  after: [],
  start: null,
  end: null,
  free: null,
  doneAt: null,
  timerUntil: null,
  critical: false,
  ...more,
})
/** What a kind reports besides, where anything. */
export const OWN: Partial<Record<OperationRecord['kind'], object>> = {
  repair: {
    repair: {
      welded: 0,
      degenerate: 0,
      duplicate: 0,
      nonManifoldFaces: 0,
      turned: 0,
      crumbs: 0,
      holesFilled: 0,
      patchFaces: 0,
    },
  },
  hollow: {
    hollow: {
      wallAsked: 2,
      wall: { minimum: 2, percentile1: 2, mean: 2, samples: 9, thinnest: [0, 0, 0] },
      cavities: 1,
      cavityVolume: 0,
      volumeBefore: 1,
      volumeAfter: 1,
      centreBefore: [5, 5, 10],
      centreAfter: [5, 5, 10],
      pocketsFilled: 0,
      cavityCentre: [5, 5, 10],
      cavityRadius: 3,
      kept: 0,
    },
  },
  drill: { drill: { holes: [], volumeRemoved: 0 } },
  fix: { fix: { walls: [2] } },
  join: { join: { volumeBefore: 9, volumeAfter: 12, overlap: 1 } },
  trim: { removed: 0 },
  calibrate: { factor: 1 },
  pose: { pose: { flipped: 0, volumeChange: 0, joints: [] } },
  orient: { offset: [0, 0, 0] },
  cut: { cut: { area: 1, seam: 1, pieces: 1 } },
  support: {
    support: {
      tips: [],
      unreached: [],
      barred: [],
      lostEdits: 0,
      bodyFaces: 12,
      supportVolume: 0,
      shift: [0, 0, 0],
      scarArea: 0,
      focalScar: 0,
      thinned: 0,
      joined: 0,
      braces: 0,
      height: 25,
      layers: [],
    },
  },
}

/** The server as the page sees it: one piece of one part, versions, and answers to checks that were put in beforehand. */
export class Bench {
  version = 1
  private list: OperationRecord[] = []
  get operations(): OperationRecord[] {
    return this.list
  }
  /** As a test writes them: what has a usual value may be left out. */
  set operations(list: readonly OperationInput[]) {
    this.list = list as OperationRecord[]
  }
  checks = new Map<string, Answer>()
  /** what an operation that is only tried reports, by its kind */
  trials = new Map<string, Answer>()
  /** what an operation of that kind is refused with */
  failing = new Map<string, string>()
  stock: object[] = []
  /** parts of the piece besides its first */
  others: OtherPart[] = []
  /** what is answered instead of what the bench would, by method and path */
  replies = new Map<string, unknown>()
  /** what was sent, by method and path, the newest last */
  sent: { call: string; body: unknown }[] = []
  deadline: string | null = null
  calls: string[] = []
  refuseNext = 0
  /** what was sent last to change several parts at once */
  arranged: unknown = null
  /** fields of the piece that were changed */
  fields: Record<string, unknown> = {}
  fieldsVersion = 1
  /** ms that each answer takes */
  slow = 0
  event: ((data: object) => void) | null = null

  private derivation(kind: string, report: unknown, asked: unknown = null): object {
    const key = `${kind}-${JSON.stringify([this.operations.map((o) => o.kind), asked])}`
    const message = this.failing.get(kind)
    if (message !== undefined)
      return {
        key,
        kind,
        status: 'failed',
        progress: 1,
        meshHash: null,
        blobs: {},
        report: null,
        problem: { code: 'refused', message },
      }
    return {
      key,
      kind,
      status: 'done',
      progress: 1,
      meshHash: `mesh-${kind}`,
      blobs: kind === 'slice' ? { zip: 'zip' } : {},
      report,
      problem: null,
    }
  }
  private part(): object {
    return {
      id: PART,
      pieceId: PIECE,
      name: 'bust',
      fileName: 'bust.stl',
      version: this.version,
      sculptMesh: 'mesh-sculpt',
      sculptId: null,
      meshHash: 'mesh-sculpt',
      steps: this.operations.map((op) => ({
        op,
        derivation: this.derivation(op.kind, { kind: op.kind, measures: MEASURES, ...OWN[op.kind] }),
      })),
    }
  }
  private other({ id, name, operations, version }: OtherPart): object {
    const made = (op: OperationRecord): object => ({
      ...this.derivation(op.kind, { kind: op.kind, measures: MEASURES, ...OWN[op.kind] }, name),
      meshHash: meshOfOther(name, op.kind),
    })
    return {
      ...this.part(),
      id,
      name,
      fileName: `${name}.stl`,
      version,
      sculptMesh: meshOfOther(name),
      meshHash: meshOfOther(name),
      steps: operations.map((op) => ({ op, derivation: made(op) })),
    }
  }
  async answer(url: string, init: RequestInit = {}): Promise<Response> {
    const path = url.replace('/api', ''),
      method = init.method ?? 'GET'
    const body = typeof init.body === 'string' ? (JSON.parse(init.body) as Body) : ({} as Body)
    this.calls.push(`${method} ${path}`)
    if (method !== 'GET') this.sent.push({ call: `${method} ${path}`, body })
    const json = (value: unknown, status = 200): Response => new Response(JSON.stringify(value), { status })
    // What is answered is what was there when it was asked; that it takes its time is what quick changes meet.
    const reply = this.reply(path, method, body, json)
    if (this.slow > 0) await new Promise((r) => setTimeout(r, this.slow))
    return reply
  }
  /** A thing of the stock added, changed from the version that is there, or taken out. */
  private changeStock(
    path: string,
    method: string,
    body: { version: number; data: object },
    json: (value: unknown, status?: number) => Response,
  ): Response {
    const [, , kind, id] = path.split('/') as [string, string, string, string | undefined]
    const there = this.stock as { id: string; version: number; data: object }[]
    if (method === 'POST') this.stock.push(item(kind, `new-${this.stock.length}`, body))
    const found = there.find((i) => i.id === id)
    if (method === 'DELETE') this.stock = there.filter((i) => i !== found)
    if (method !== 'PUT' || !found) return json({})
    if (body.version !== found.version) return json({ detail: 'This was changed in another window meanwhile.' }, 409)
    Object.assign(found, { data: body.data, version: found.version + 1 })
    return json(found)
  }
  private reply(
    path: string,
    method: string,
    body: Body,
    json: (value: unknown, status?: number) => Response,
  ): Response {
    if (this.replies.has(`${method} ${path}`)) return json(this.replies.get(`${method} ${path}`))
    if (path === `/pieces/${PIECE}` && method === 'PATCH') {
      const { version, ...changed } = body as unknown as Record<string, unknown>
      if (version !== this.fieldsVersion) return json({ detail: 'This was changed in another window meanwhile.' }, 409)
      this.fieldsVersion++
      Object.assign(this.fields, changed)
      return json({ id: PIECE, createdAt: '2026-11-01', name: 'Pilot', ...this.fields, version: this.fieldsVersion })
    }
    if (path === `/pieces/${PIECE}`)
      return json({
        id: PIECE,
        createdAt: '2026-11-01',
        name: 'Pilot',
        deadline: this.deadline,
        ...this.fields,
        version: this.fieldsVersion,
        partList: [this.part(), ...this.others.map((o) => this.other(o))],
        intakes: [],
      })
    if (path === `/parts/${PART}/operations`) {
      if (this.refuseNext > 0 || body.version !== this.version) {
        this.refuseNext = Math.max(0, this.refuseNext - 1)
        return json({ status: 409, title: 'stale', detail: 'Somebody else changed this part meanwhile.' }, 409)
      }
      this.operations = body.operations
      this.version++
      return json(this.part())
    }
    if (path === `/pieces/${PIECE}/arrange`) {
      const a = body as unknown as {
        changes: { id: string; version: number; operations: OperationRecord[] }[]
        swap: { id: string; version: number }[]
      }
      this.arranged = a
      for (const step of [...a.changes, ...a.swap]) {
        const of: { operations: readonly OperationInput[]; version: number } =
          this.others.find((o) => o.id === step.id) ?? this
        if (step.version !== of.version) return json({ detail: 'This was changed in another window meanwhile.' }, 409)
        if ('operations' in step) of.operations = step.operations as OperationRecord[]
        of.version++
      }
      return json({ created: [] })
    }
    if (path === '/checks' || path === '/checks/known') {
      const kind = body.check.kind
      if (!this.checks.has(kind)) return path === '/checks' ? json({ detail: 'no worker' }, 503) : json(null)
      const answer = this.checks.get(kind)
      const report = typeof answer === 'function' ? answer(body.check as never, body.mesh) : answer
      return json(this.derivation(kind, report, [body.mesh, body.check]))
    }
    if (path === '/trials' && this.trials.has(body.op.kind)) {
      const answer = this.trials.get(body.op.kind)
      const report = typeof answer === 'function' ? answer(body.op as never, body.mesh) : answer
      return json(this.derivation(body.op.kind, { kind: body.op.kind, measures: MEASURES, ...report }, body.op))
    }
    if (path === `/pieces/${PIECE}/plan`)
      return json(
        planReply({
          steps: ['a', 'b', 'c'].map((key, i) =>
            planStep(key, {
              doneAt: i === 0 ? '2026-11-20T10:00:00Z' : null,
              timerUntil: i === 1 ? new Date(Date.now() + 3_600_000).toISOString() : null,
            }),
          ),
        }),
      )
    if (path === `/pieces/${PIECE}/log`) return json([])
    if (path === `/pieces/${PIECE}/scheme`)
      return json({ version: 1, regions: [{ id: 0, name: 'Coat', target: null }], coats: [], maps: [] })
    if (path === '/stock') return json(this.stock)
    if (path.startsWith('/stock/')) return this.changeStock(path, method, body as never, json)
    if (path === '/workshop') return json({ detail: 'none' }, 404)
    return json({ detail: `no ${path}` }, 404)
  }
}
