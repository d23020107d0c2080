/**
 * Stands in for comlink in tests, so that what a page asks of a worker is done by the worker's own code in this process:
 *
 *     vi.mock('comlink', () => import('../workers/inProcess'))
 *
 * What is sent is cloned both ways, as between threads.
 */
type Work = Record<string, (...args: unknown[]) => unknown>
let begun: Work | null = null
export const expose = (work: Work): void => {
  begun = work
}
export const transfer = <T>(value: T): T => value
export const proxy = <T>(value: T): T => value
/** What runs inside a worker, by the name of its file. */
const loaded = new Map<string, Promise<Work>>()
export class InProcess {
  readonly name: string
  constructor(url: URL | string) {
    this.name = /(\w+)\.worker\.ts/.exec(String(url))![1]!
  }
  load(): Promise<Work> {
    const there = loaded.get(this.name)
    if (there) return there
    const load = import(`./${this.name}.worker.ts`).then(() => begun!)
    loaded.set(this.name, load)
    return load
  }
  terminate(): void {
    loaded.delete(this.name)
  }
}
// Not by the test runner's stubs: a test that ends would take it from the next.
Object.assign(globalThis, { Worker: InProcess })
export const wrap = (worker: InProcess): Work =>
  new Proxy({} as Work, {
    get:
      (_, name) =>
      async (...args: unknown[]) => {
        const work = await worker.load()
        return structuredClone(await work[String(name)]!(...(structuredClone(args) as unknown[])))
      },
  })
