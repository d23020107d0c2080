import { createHash } from 'node:crypto'
import { readFileSync, writeFileSync } from 'node:fs'
import { zipSync } from 'fflate'
import { describe, expect, it } from 'vitest'
import { meshToBytes } from '../formats/meshBytes'
import { writeStl } from '../formats/stl'
import { concatenate, type Mesh } from '../mesh/mesh'
import { applyOperation } from '../operations/apply'
import { operation, OPERATIONS, type OperationKind } from '../operations/registry'
import { hash } from '../schemas/geometry'
import { tube } from '../shape/cylinder'
import { boxBody, chainBody, sphereBody } from '../testBodies'
import type { CheckDefinition, CheckHost, CheckResult } from './check'
import { CHECKS, checkOf, type CheckKind } from './registry'
import { readFile } from './readFile'
import { CHECK_CASES, OPERATION_CASES, type BodyName } from './versionCases'
import { say } from '../words/say'

/**
 * Results are kept for ever under the version of what made them. So a kind whose result changes must get another version,
 * and this is where a forgotten one is found: each kind answers one fixed question, and the digest of its answer is held
 * beside its version in versions.json.
 */
const FILE = new URL('./versions.json', import.meta.url)
type Held = Record<string, { version: number; digest: string }>
const held = JSON.parse(readFileSync(FILE, 'utf8')) as Held
/** RECORD=1 holds new digests, but only of kinds that are new or whose version was raised. */
const recording = process.env.RECORD === '1'

const made = new Map<BodyName, Promise<Mesh>>()
const body = (name: BodyName): Promise<Mesh> => {
  if (!made.has(name)) made.set(name, makeBody(name))
  return made.get(name)!
}
async function makeBody(name: BodyName): Promise<Mesh> {
  const after = async (of: BodyName, op: object): Promise<Mesh> => {
    const r = await applyOperation(await body(of), operation.parse(op))
    if (!r.ok) throw new Error(say(r.problem.message))
    return r.value.mesh
  }
  switch (name) {
    case 'box':
      return boxBody(30, 30, 40)
    case 'ball':
      return sphereBody(10, 3)
    case 'pair':
      return concatenate([boxBody(10, 10, 10), sphereBody(6, 2, [10, 5, 5])])
    case 'lid':
      return boxBody(20, 20, 1, 4, 4, 40.2)
    case 'chain':
      return chainBody(7, 4)
    case 'rod':
      return tube(
        Array.from({ length: 17 }, (_, i) => [0, 0, 2.5 * i] as const),
        Array.from({ length: 17 }, () => 8),
        48,
      )
    case 'turned':
      return after('box', { kind: 'orient', quaternion: [Math.sin(0.3), 0, 0, Math.cos(0.3)] })
    case 'shell':
      return after('box', { kind: 'hollow', wall: 2.2, voxel: 0.8 })
    case 'drilled':
      return after('shell', OPERATION_CASES.drill.op && { kind: 'drill', ...OPERATION_CASES.drill.op })
    case 'cloud': {
      const ball = sphereBody(10, 4)
      return {
        positions: ball.positions,
        triangles: new Uint32Array(0),
        normals: Float32Array.from(ball.positions, (v) => v / 10),
      }
    }
  }
}

/** What is not exact on every machine is the last digits of numbers in a report; bytes are. */
const rounded = (_key: string, v: unknown): unknown =>
  typeof v === 'number' && !Number.isInteger(v) ? Number(v.toPrecision(6)) : v
function digestOf(bytes: readonly Uint8Array[], report: unknown): string {
  const h = createHash('sha256')
  for (const b of bytes) h.update(b).update('|')
  return h.update(JSON.stringify(report, rounded)).digest('hex').slice(0, 24)
}

function compare(kind: string, version: number, digest: string, file: string, record = recording): void {
  const was = held[kind]
  if (record && was?.version !== version) {
    held[kind] = { version, digest }
    writeFileSync(FILE, `${JSON.stringify(Object.fromEntries(Object.entries(held).sort()), null, 2)}\n`)
    return
  }
  const how = 'then run RECORD=1 npx vitest run core/checks/versions.test.ts'
  if (!was || was.version !== version)
    throw new Error(`No result of ${kind} is held for version ${version}. If it is new or was raised, ${how}.`)
  if (was.digest !== digest)
    throw new Error(
      `${kind} gives another result than its version ${version} did. Raise \`version\` in ${file} to ${version + 1}, ${how}.`,
    )
}

const nothing = hash.parse('0'.repeat(64))
/** Hashes by which a record names its other bodies; the test hands the bodies over itself. */
const others = (n: number): object =>
  n === 0 ? {} : { other: nothing, others: Array.from({ length: n }, () => nothing) }

describe('the version of every operation', () => {
  for (const o of OPERATIONS)
    it(`is that of its result: ${o.kind}`, async () => {
      const c = OPERATION_CASES[o.kind as OperationKind]
      const op = operation.parse({ kind: o.kind, ...c.op })
      const r = await applyOperation(await body(c.of), op, undefined, await Promise.all((c.others ?? []).map(body)))
      if (!r.ok) throw new Error(say(r.problem.message))
      expect(o.report.safeParse(JSON.parse(JSON.stringify(r.value.report))).error).toBeUndefined()
      expect(say(o.label(op as never))).toMatch(/\w/)
      compare(o.kind, o.version, digestOf([meshToBytes(r.value.mesh)], r.value.report), `core/operations/${o.kind}.ts`)
    })
})

describe('the version of every check', () => {
  for (const d of [...CHECKS, readFile])
    it(`is that of its answer: ${d.kind}`, async () => {
      const { result, streamed } = await asked(d.kind)
      const bytes = [
        ...(result.mesh ? [meshToBytes(result.mesh)] : []),
        ...(result.meshes ?? []).map((m) => meshToBytes(m.mesh)),
        ...Object.values(result.files ?? {}),
        ...streamed.map((f) => f.bytes),
      ]
      expect(d.report.safeParse(JSON.parse(JSON.stringify(result.report))).error).toBeUndefined()
      compare(d.kind, d.version, digestOf(bytes, result.report), `core/checks/ (kind '${d.kind}')`)
    })
})

async function asked(
  kind: CheckKind,
): Promise<{ result: CheckResult<unknown>; streamed: { name: string; bytes: Uint8Array }[] }> {
  const d = checkOf(kind) as unknown as CheckDefinition
  const c = CHECK_CASES[kind]
  const streamed: { name: string; bytes: Uint8Array }[] = []
  const archive = kind === 'archive' ? await layerArchive() : null
  const host: CheckHost = {
    progress: () => undefined,
    putFile: (name, bytes) => Promise.resolve(void streamed.push({ name, bytes: bytes.slice() })),
    putBytes: (bytes) => Promise.resolve(void streamed.push({ name: '', bytes: bytes.slice() })),
    file: kind === 'import' ? writeStl(await body(c.of)).slice() : null,
    archive: archive && {
      size: archive.length,
      read: (from, length) => Promise.resolve(archive.slice(from, from + length)),
    },
    layerThreads: () => undefined,
  }
  const params = d.schema.parse({ kind, ...others(c.others?.length ?? 0), ...c.ask })
  const meshes = (await Promise.all([c.of, ...(c.others ?? [])].map(body))) as [Mesh, ...Mesh[]]
  const r = await d.run({ meshes, params, host })
  if (!r.ok) throw new Error(say(r.problem.message))
  return { result: r.value, streamed }
}

/** What slicing wrote, as a file of layers. */
async function layerArchive(): Promise<Uint8Array> {
  const { streamed } = await asked('slice')
  return zipSync(Object.fromEntries(streamed.map((f) => [f.name, f.bytes])))
}

describe('a forgotten version', () => {
  it('is told with the file and the number to raise', () => {
    const kind = 'orient'
    expect(() => compare(kind, held[kind]!.version, 'another', 'core/operations/orient.ts', false)).toThrow(
      /Raise `version` in core\/operations\/orient.ts to \d+, then run RECORD=1/,
    )
    expect(() => compare(kind, 99, 'another', '', false)).toThrow(/No result of orient is held for version 99/)
  })
  it('leaves nothing held of kinds that are gone', () => {
    const kinds = [...OPERATIONS, ...CHECKS, readFile].map((d) => d.kind as string)
    expect(Object.keys(held).filter((k) => !kinds.includes(k))).toEqual([])
  })
})
