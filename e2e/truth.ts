import type { Page } from './workshop'

interface Step {
  op: { kind: string; factor?: number }
  derivation: { status: string; report: Record<string, never> | null } | null
}
interface Part {
  sculptMesh: string
  steps: Step[]
}
/** What the page says at one moment. */
interface Shown {
  path: string
  side: string
  findings: { level: string; id: string }[]
  /** state of each stage in the list, by its name */
  stages: Record<string, { state: string; measure: string }>
}
/** What a sentence claims, as far as the page says it, and whether the server agrees; null: the page does not say it. */
type Claim = (shown: Shown, server: Server) => Promise<{ says: string; is: boolean } | null>

/** The state of the one piece, asked of the server itself. */
class Server {
  constructor(
    private readonly address: string,
    private readonly id: string,
  ) {}
  async get<T>(path: string): Promise<T> {
    return (await (await fetch(`${this.address}/api${path}`)).json()) as T
  }
  async part(): Promise<Part | null> {
    return (await this.get<{ partList: Part[] }>(`/pieces/${this.id}`)).partList[0] ?? null
  }
  plan(): Promise<{ steps: { key: string; title: string; doneAt: string | null }[] }> {
    return this.get(`/pieces/${this.id}/plan`)
  }
  stock(): Promise<{ kind: string }[]> {
    return this.get('/stock')
  }
  async check(mesh: string, check: object): Promise<Step['derivation']> {
    const r = await fetch(`${this.address}/api/checks`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ mesh, check }),
    })
    return (await r.json()) as Step['derivation']
  }
}
interface Health {
  holes: { count: number }
  crumbs: { count: number }
  measures: { size: [number, number, number] }
}
const on = (s: Shown, stage: string): boolean => s.path.endsWith(`/${stage}`)
/** Mesh after the steps that were made at Import. */
function imported(part: Part): string | null {
  let mesh = part.sculptMesh
  for (const { op, derivation } of part.steps) {
    if (!['trim', 'surface', 'rebuild', 'repair', 'calibrate', 'smooth', 'simplify'].includes(op.kind)) break
    if (derivation?.status === 'failed') continue
    if (derivation?.status !== 'done') return null
    mesh = (derivation as unknown as { meshHash: string }).meshHash
  }
  return mesh
}
async function healthOf(server: Server): Promise<Health | null> {
  const part = await server.part(),
    mesh = part && imported(part)
  const d = mesh ? await server.check(mesh, { kind: 'health' }) : null
  return d?.status === 'done' ? (d.report as unknown as Health) : null
}
const agrees = (says: string, is: boolean): { says: string; is: boolean } => ({ says, is })

const CLAIMS: Record<string, Claim> = {
  'no problems at import only once it was measured and has none': async (s, server) => {
    if (!on(s, 'import') || !s.side.includes('No problems found')) return null
    const h = await healthOf(server)
    return agrees('no problems found', h !== null && h.holes.count === 0 && h.crumbs.count === 0)
  },
  'holes are listed where there are holes': async (s, server) => {
    if (!on(s, 'import') || !s.findings.some((f) => f.id === 'holes')) return null
    const h = await healthOf(server)
    return agrees('holes', h === null || h.holes.count > 0)
  },
  'a stage is done in the list only once its result is there': async (s, server) => {
    if (s.stages.Import?.state !== 'done') return null
    const h = await healthOf(server)
    return agrees('import is done', h !== null && h.holes.count === 0)
  },
  'the height is that of the sculpt at its scale': async (s, server) => {
    const said = /([\d.,]+) mm tall/.exec(s.stages.Scale?.measure ?? '')
    if (!said) return null
    const h = await healthOf(server),
      part = await server.part()
    const factor = part?.steps.find((x) => x.op.kind === 'scale')?.op.factor ?? 1
    return agrees(said[0], h === null || Math.abs(h.measures.size[2] * factor - Number(said[1])) < 0.6)
  },
  'repaired only when it is': async (s, server) => {
    if (!/It was repaired already|Repaired/.test(s.side) || !on(s, 'import')) return null
    const step = (await server.part())?.steps.find((x) => x.op.kind === 'repair')
    return agrees('repaired', step?.derivation?.status === 'done')
  },
  'failed only what failed': async (s, server) => {
    if (!s.side.includes('Failed: ')) return null
    return agrees('failed', (await server.part())?.steps.some((x) => x.derivation?.status === 'failed') ?? false)
  },
  'tips are as many as were generated': async (s, server) => {
    const said = /([\d,]+) tips?$/.exec(s.stages['Orient and support']?.measure ?? '')
    if (!said) return null
    const d = (await server.part())?.steps.find((x) => x.op.kind === 'support')?.derivation
    const report = d?.report as unknown as { support: { tips: unknown[] } } | null
    return agrees(said[0], d?.status !== 'done' || report!.support.tips.length === Number(said[1]!.replace(/,/g, '')))
  },
  'nothing is called free of problems that needs a printer, while there is none': async (s, server) => {
    if (!['scale', 'orient', 'plates'].some((x) => on(s, x)) || !s.side.includes('No problems found')) return null
    return agrees(
      'no problems found',
      (await server.stock()).some((i) => i.kind === 'printer'),
    )
  },
  'the next step of the plan is the first that is not done': async (s, server) => {
    if (!on(s, 'plan') || !s.side.includes('Mark as done')) return null
    const next = (await server.plan()).steps.find((x) => x.doneAt === null)
    return agrees('next step', next !== undefined && s.side.includes(next.title))
  },
  'a printer is said to be missing only while there is none': async (s, server) => {
    if (!/needs a printer|No printer is chosen, so/.test(s.side)) return null
    return agrees('no printer', !(await server.stock()).some((i) => i.kind === 'printer'))
  },
}

/** ms after which the page has the answer to a change of its own */
const ANSWERED = 600
const pause = (ms: number): Promise<void> => new Promise((r) => setTimeout(r, ms))

const read = (page: Page): Promise<Shown> =>
  page.evaluate(() => ({
    path: location.pathname,
    side: document.querySelector('aside')?.innerText ?? '',
    findings: [...document.querySelectorAll<HTMLElement>('[data-finding]')].map((f) => ({
      level: f.className,
      id: f.dataset.finding!,
    })),
    stages: Object.fromEntries(
      [...document.querySelectorAll('nav .stage')].map((a) => [
        a.querySelector('.title')!.textContent!.trim(),
        {
          state: ['done', 'open', 'stale', 'waiting'].find((c) => a.classList.contains(c)) ?? '',
          measure: a.querySelector('.measure')!.textContent!.trim(),
        },
      ]),
    ),
  }))

/**
 * Reads the page over and over while a test walks through it, and holds what it says against the server. What the page says
 * is read first: what is done stays done, so a claim that was true then is true when the server is asked.
 */
export class Truth {
  readonly lies: string[] = []
  /** how often each claim was made */
  readonly made = new Map<string, number>()
  private ended = false
  private readonly loop: Promise<void>
  constructor(page: Page, address: string, id: string) {
    this.loop = this.watch(page, new Server(address, id))
  }
  private async watch(page: Page, server: Server): Promise<void> {
    while (!this.ended) {
      // Between two pages there is nothing to read.
      const shown = await read(page).catch(() => null)
      if (shown)
        for (const [name, claim] of Object.entries(CLAIMS)) {
          const c = await claim(shown, server).catch(() => null)
          if (!c) continue
          this.made.set(name, (this.made.get(name) ?? 0) + 1)
          // A change of one's own may be on its way back to the page: only what is still said after it is a lie.
          if (c.is) continue
          await pause(ANSWERED)
          const again = await read(page).catch(() => null)
          const still = again && (await claim(again, server).catch(() => null))
          if (still && !still.is) this.lies.push(`${name}: “${still.says}” at ${again.path}`)
        }
      await pause(150)
    }
  }
  async end(): Promise<void> {
    this.ended = true
    await this.loop
  }
}
