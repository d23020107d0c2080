import { parentPort, workerData } from 'node:worker_threads'
import type { Answer } from '../../core/answer'
import { bad, good } from '../../core/answer'
import { manifest } from '../../core/print/slice/manifest'
import { meshFromBytes, meshToBytes } from '../../core/formats/meshBytes'
import { writeGlb } from '../../core/formats/writeGlb'
import { writeObj } from '../../core/formats/obj'
import { writePly } from '../../core/formats/ply'
import { readSculpt } from '../../core/formats/readSculpt'
import { writeStl } from '../../core/formats/stl'
import { write3mf } from '../../core/formats/write3mf'
import { accessOf } from '../../core/fit/access'
import { balance } from '../../core/fit/balance'
import { detailMap, detailShares } from '../../core/fit/detail'
import { difference } from '../../core/fit/difference'
import { fitDefaults, fitOf, gapMap } from '../../core/fit/gap'
import { restOn } from '../../core/fit/rest'
import { thicknessMap } from '../../core/fit/thicknessMap'
import { thinness } from '../../core/fit/thinness'
import { health } from '../../core/mesh/health'
import { carryColours } from '../../core/mesh/carryColours'
import { measure, vertexNormals } from '../../core/mesh/measure'
import { bounds, boxDiagonal, concatenate, isCloud, splitFaces, type Mesh } from '../../core/mesh/mesh'
import { refine } from '../../core/mesh/refine'
import { axisAt } from '../../core/mesh/roundness'
import { simplify } from '../../core/mesh/simplify'
import { skinLine } from '../../core/mesh/skinLine'
import { surfaceMaps } from '../../core/paint/surface/surfaceMaps'
import { cupEstimate } from '../../core/print/resin/cupEstimate'
import { scarImportance } from '../../core/print/orient/importance'
import { scoreOrientations } from '../../core/print/orient/orientation'
import { rinse } from '../../core/print/resin/rinse'
import { presupported } from '../../core/print/support/presupported'
import { cuspsOf } from '../../core/print/orient/cusps'
import { stepsMap } from '../../core/print/orient/stepsMap'
import { outlineStack } from '../../core/print/slice/outlineStack'
import { inspectLayers, slice } from '../../core/print/slice/slice'
import { readLayers, type LayerScale } from '../../core/print/slice/readLayers'
import type { ByteSource } from '../../core/formats/zipDirectory'
import { trappedResin } from '../../core/print/resin/trapped'
import { ventSite } from '../../core/shape/ventSite'
import { coveredDabs } from '../../core/shape/coveredDabs'
import { drainSites } from '../../core/shape/drainSites'
import { holeNear } from '../../core/shape/holeNear'
import { applyOperation } from '../../core/operations/applyOperation'
import { cutPlanes } from '../../core/shape/cutPlanes'
import { keySites } from '../../core/shape/fixing'
import { coreChoices } from '../../core/fit/coreChoices'
import { wallLoad } from '../../core/fit/wallLoad'
import { lightRoute } from '../../core/shape/lightRoute'
import { inwardMiddle } from '../../core/pose/landmark'
import { restingPlaces } from '../../core/paint/surface/resting'
import { stretchMap } from '../../core/pose/stretch'
import { OPERATION_VERSION, type Operation } from '../../core/operations/operations'
import { findFloor } from '../../core/scan/floor'
import { nearestNeighbours } from '../../core/scan/neighbours'
import { cloudNormals } from '../../core/scan/normals'
import { scan } from '../../core/scan/scanner'
import { thinned } from '../../core/scan/thin'
import { nested } from './nestCheck'
import { sliceAhead } from './sliceAhead'
import { placedBody } from '../../core/print/nest/plateBody'
import type { Check } from '../../contract/derivations'

/**
 * Runs one derivation in a worker thread: bytes in, bytes out, no database. Progress and, for layer archives,
 * the files themselves are posted as they come, so that the archive never stands in memory whole.
 */
export interface KernelTask {
  kind: string
  params: Record<string, unknown>
  inputs: Uint8Array[]
}
export type KernelMessage =
  | { type: 'progress'; fraction: number }
  | { type: 'file'; name: string; bytes: Uint8Array }
  /** the next bytes of the one file that is made */
  | { type: 'bytes'; bytes: Uint8Array }
  /** some bytes of an archive that is too large to be handed over whole */
  | { type: 'read'; id: number; from: number; length: number }
  | { type: 'done'; result: KernelResult }
  | { type: 'problem'; problem: { code: string; message: string } }
export interface KernelResult {
  mesh?: Uint8Array
  meshes?: { name: string; bytes: Uint8Array }[]
  files?: Record<string, Uint8Array>
  /** name of the file that was posted as it was made; of many, the archive is named `zip` */
  streamed?: string
  report: unknown
}

const port = parentPort!
const post = (m: KernelMessage): void => port.postMessage(m)
let lastReport = 0
const report = (fraction: number): void => {
  const now = Date.now()
  if (now - lastReport > 200) {
    lastReport = now
    post({ type: 'progress', fraction })
  }
}

/** Files posted but not yet stored; the slicer waits when the database is behind. */
const MOST_PENDING = 48
let pending = 0,
  resume: (() => void) | null = null
const reads = new Map<number, (bytes: Uint8Array) => void>()
port.on('message', (m: 'stored' | { id: number; bytes: Uint8Array }) => {
  if (m !== 'stored') {
    reads.get(m.id)?.(m.bytes)
    reads.delete(m.id)
    return
  }
  pending--
  if (resume && pending < MOST_PENDING / 2) {
    resume()
    resume = null
  }
})
const postFile = (name: string, bytes: Uint8Array): Promise<void> => handOver({ type: 'file', name, bytes })
const postBytes = (bytes: Uint8Array): Promise<void> => handOver({ type: 'bytes', bytes })
async function handOver(m: Extract<KernelMessage, { bytes: Uint8Array }>): Promise<void> {
  // Who made it keeps nothing of it, so that its buffer goes over without a copy, unless it is part of a larger one.
  const { buffer, byteLength } = m.bytes
  port.postMessage(m, buffer.byteLength === byteLength ? [buffer as ArrayBuffer] : [])
  if (++pending >= MOST_PENDING)
    await new Promise<void>((r) => {
      resume = r
    })
}

/** The archive that this derivation is of, read by its place through the worker. */
function archiveSource(size: number): ByteSource {
  let last = 0
  const read = (from: number, length: number): Promise<Uint8Array> =>
    new Promise((done) => {
      reads.set(++last, done)
      post({ type: 'read', id: last, from, length })
    })
  return { size, read }
}

async function perform({ kind, params, inputs }: KernelTask): Promise<Answer<KernelResult>> {
  if (kind === 'import') {
    const passedOver: string[] = []
    const bodies = readSculpt(params.fileName as string, inputs[0]!, passedOver)
    if (!bodies.ok) return bodies
    return good({
      meshes: bodies.value.map((b) => ({ name: b.name, bytes: meshToBytes(b.mesh) })),
      report: { passedOver },
    })
  }
  if (kind === 'archive') {
    const { pitch, layerHeight, size } = params as unknown as LayerScale & { size: number }
    const r = await readLayers(archiveSource(size), { pitch, layerHeight }, report)
    return r.ok ? good({ report: r.value }) : r
  }
  const meshes: Mesh[] = []
  for (const bytes of inputs) {
    const opened = meshFromBytes(bytes)
    if (!opened.ok) return opened
    meshes.push(opened.value)
  }
  const [mesh, ...others] = meshes as [Mesh, ...Mesh[]]
  if (kind in OPERATION_VERSION) {
    const r = await applyOperation(mesh, { kind, ...params } as Operation, report, others)
    return r.ok ? good({ mesh: meshToBytes(r.value.mesh), report: r.value.report }) : r
  }
  return performCheck({ kind, ...params } as Check, mesh, others)
}

async function performCheck(check: Check, mesh: Mesh, others: readonly Mesh[]): Promise<Answer<KernelResult>> {
  switch (check.kind) {
    case 'health':
      return good({
        report: { ...health(mesh), measures: measure(mesh), points: isCloud(mesh) ? mesh.positions.length / 3 : 0 },
      })
    case 'display':
      return good(await display(mesh, check.faces, check.bodyFaces))
    case 'drainSites':
      return good({ report: { sites: drainSites(mesh, check, others, report) } })
    case 'holeNear':
      return good({ report: holeNear(mesh, others, check) })
    case 'ventSite': {
      const site = ventSite(mesh, check)
      return site.ok ? good({ report: { site: site.value } }) : site
    }
    case 'orientations': {
      const lean = await simplify(mesh, 30_000, 0.4)
      const scores = scoreOrientations(
        lean,
        {
          ...check,
          importance: scarImportance(lean, check.focal, others),
          cups: cupEstimate(mesh),
        },
        report,
      )
      const upright = scores.find((s) => s.up[2] > 0.9999)
      return good({ report: { scores, upright } })
    }
    case 'thinness':
      return good({ report: thinness(mesh, check.limit, report) })
    case 'thicknessMap':
      return good(asMap(thicknessMap(mesh, report)))
    case 'detail': {
      const lean = await simplify(mesh, DETAIL_FACES, 0.05)
      return good({ report: { shares: detailShares(lean, check.factors, check, report) } })
    }
    case 'detailMap':
      return good(asMap(detailMap(mesh, await simplify(others[0]!, DETAIL_FACES, 0.05), check.factor, check, report)))
    case 'stretchMap':
      return good(asMap(stretchMap(mesh, others[0]!, others[1]!)))
    case 'restingPlaces':
      return good(asMap(restingPlaces(mesh, others, report)))
    case 'coveredDabs':
      return good({ report: { dabs: coveredDabs(mesh, others, check.spacing) } })
    case 'presupported':
      return good({ report: { found: presupported(mesh) } })
    case 'stepsMap':
      return good(asMap(stepsMap(mesh, check.up, check.layerHeight)))
    case 'axis': {
      const r = axisAt(mesh, check.point)
      return r.ok ? good({ report: r.value }) : r
    }
    case 'skinLine':
      return good({ report: { line: skinLine(mesh, check.places, check.closed) } })
    case 'cutPlanes':
      return good({ report: { planes: cutPlanes(await simplify(mesh, 60_000, 0.2), check, report) } })
    case 'lightRoute': {
      const r = lightRoute([mesh, ...others], check, report)
      return r.ok ? good({ report: r.value }) : r
    }
    case 'wallLoad':
      return good({ report: wallLoad(mesh, check, report) })
    case 'coreChoices':
      return good({ report: coreChoices(mesh, others[0]!, check.casting, check, report) })
    case 'rinse':
      return good({ report: rinse(mesh, check.holes, report) })
    case 'trapped':
      return good({ report: trappedResin(mesh, check.down, report) })
    case 'layers':
      return good({ report: inspectLayers(mesh, check.step, report) })
    case 'slice': {
      const r = await slice(mesh, check.printer, check.resin, postFile, report, sliceAhead(check.printer))
      if (!r.ok) return r
      const text = new TextEncoder().encode(JSON.stringify(manifest(check.printer, check.resin, r.value), null, 1))
      await postFile('manifest.json', text)
      return good({ report: r.value })
    }
    case 'nest':
      return good({ report: nested(check, [mesh, ...others], report) })
    case 'plate': {
      const all = [mesh, ...others]
      const lost = check.parts.find((p) => p.of >= all.length)
      if (lost) return bad('no-such-part', `There is no part ${lost.of} among the ${all.length} named.`)
      const body = concatenate(check.parts.map((p) => placedBody(all[p.of]!, p)))
      return good({ mesh: meshToBytes(body), report: { measures: measure(body) } })
    }
    case 'archive':
      // Not of a mesh: it was read before any mesh was.
      break
    case 'export': {
      const bytes = EXPORTS[check.format](mesh, check.name)
      return good({ files: { [check.format]: bytes }, report: { bytes: bytes.length } })
    }
    case 'outlines': {
      const r = await outlineStack(mesh, check.printer, check.format, postBytes, report)
      return r.ok ? good({ streamed: check.format, report: r.value }) : r
    }
    case 'cusps':
      return good({ report: cuspsOf(mesh, check.up, check.layerHeight) })
    case 'access':
      return good({ report: accessOf(mesh, others, report) })
    case 'measures':
      return good({ report: measure(mesh) })
    case 'rest':
      return good({ report: { up: restOn(mesh, others) } })
    case 'inward':
      return good({ report: { middle: inwardMiddle(mesh, check.point, check.normal) } })
    case 'floor':
      return good({ report: { floor: findFloor(mesh.positions) } })
    case 'scan': {
      // The true scale stays here: finding it is what calibration is for.
      const { cloud } = scan(mesh, check, report)
      return good({ files: { ply: writePly(cloud) }, report: { points: cloud.positions.length / 3 } })
    }
    case 'fit': {
      const r = await fitOf(mesh, others[0]!, { ...fitDefaults, reach: check.reach }, report)
      return r.ok ? good({ report: r.value }) : r
    }
    case 'gapMap':
      return good(asMap(gapMap(mesh, vertexNormals(mesh), others[0]!, check.reach, report)))
    case 'difference': {
      const { map, ...figures } = difference(mesh, others[0]!, report)
      return good({ files: { map: new Uint8Array(map.buffer) }, report: figures })
    }
    case 'balance': {
      const r = balance(
        [mesh, ...others].map((m, i) => ({ mesh: m, ...(check.weights[i] ?? check.weights[0]!) })),
        check.wish,
      )
      return r.ok ? good({ report: r.value }) : r
    }
    case 'keySites':
      return good({ report: { sites: keySites(mesh, check.point, check.normal, check) } })
    case 'surfaceMaps': {
      const maps = surfaceMaps(mesh, check, report)
      return good({ files: { maps: new Uint8Array(maps.data.buffer) }, report: { vertices: maps.vertices } })
    }
  }
  return bad('unknown-check', 'This check is not known to this version of Undercut.')
}

/** Faces on which relief is told from form: finer than a screen shows, and quick. */
const DETAIL_FACES = 1_500_000
const asMap = (map: Float32Array): KernelResult => ({
  files: { map: new Uint8Array(map.buffer) },
  report: { vertices: map.length },
})

const EXPORTS: Record<Extract<Check, { kind: 'export' }>['format'], (mesh: Mesh, name: string) => Uint8Array> = {
  stl: (m) => writeStl(m),
  obj: (m) => writeObj(m),
  ply: writePly,
  '3mf': write3mf,
  glb: writeGlb,
}

/** Not too many faces to draw, and none too large to brush or to map per vertex. */
async function fitForScreen(mesh: Mesh, faces: number): Promise<Mesh> {
  return carryColours(mesh, refine(await simplify(mesh, faces, 1), boxDiagonal(bounds(mesh)) / 80, faces))
}

/** Points that a screen can tell apart, with normals so that they can be lit. */
function cloudForScreen(cloud: Mesh): Mesh {
  const thin = thinned(cloud, Math.max(1e-6, boxDiagonal(bounds(cloud)) / 600))
  const { positions } = thin
  return thin.normals ? thin : { ...thin, normals: cloudNormals(positions, nearestNeighbours(positions, 10), 10) }
}

/** A lighter copy for the screen. Supports stay as they are, and apart, so that they can be told from the body. */
async function display(mesh: Mesh, faces: number, bodyFaces: number | undefined): Promise<KernelResult> {
  if (isCloud(mesh)) return { mesh: meshToBytes(cloudForScreen(mesh)), report: { faces: 0, bodyFaces: 0 } }
  const total = mesh.triangles.length / 3
  if (bodyFaces === undefined || bodyFaces >= total) {
    const lean = await fitForScreen(mesh, faces)
    return {
      mesh: meshToBytes(lean),
      report: { faces: lean.triangles.length / 3, bodyFaces: lean.triangles.length / 3 },
    }
  }
  const [body, rest] = splitFaces(mesh, bodyFaces)
  const lean = await fitForScreen(body, faces)
  return {
    mesh: meshToBytes(concatenate([lean, rest])),
    report: { faces: (lean.triangles.length + rest.triangles.length) / 3, bodyFaces: lean.triangles.length / 3 },
  }
}

const answer = await perform(workerData as KernelTask)
if (answer.ok) post({ type: 'done', result: answer.value })
else post({ type: 'problem', problem: answer.problem })
port.close()
