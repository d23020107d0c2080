import { deflateSync } from 'node:zlib'
import * as THREE from 'three'
import { MeshBVH } from 'three-mesh-bvh'
import { STLLoader } from 'three/addons/loaders/STLLoader.js'
import { mergeVertices } from 'three/addons/utils/BufferGeometryUtils.js'
import Module from 'manifold-3d'
import { readStl, writeStl } from '../core/formats/stl'
import { encodeLayer } from '../core/formats/pngLayer'
import { closest, closestPoint } from '../core/mesh/closest'
import { bounds, faceCount, type Mesh } from '../core/mesh/mesh'
import { rayFirst } from '../core/mesh/ray'
import { simplify } from '../core/mesh/simplify'
import { buildTree } from '../core/mesh/tree'
import { lampWeights } from '../core/paint/optics/lamp'
import type { Coating, Painted } from '../core/paint/coats/coating'
import { HAND } from '../core/defaults/paint'
import { levelsOf } from '../core/paint/coats/levels'
import { Painter } from '../core/paint/coats/painter'
import { MAPS, surfaceMaps } from '../core/paint/surface/surfaceMaps'
import { undercoated } from '../core/paint/coats/undercoat'
import { hexToLab } from '../core/paint/optics/colour'
import { everyMix } from '../core/paint/recipes/everyMix'
import { rankOf } from '../core/paint/recipes/mixRank'
import { searchMixes } from '../core/paint/recipes/recipeSearch'
import { fromQuaternion } from '../core/math/vectors'
import { transformed } from '../core/mesh/transform'
import { opticsOf } from '../core/paint/optics/film'
import type { StockPaint } from '../core/paint/recipes/recipe'
import { followed } from '../core/print/slice/followed'
import { scoreOrientations } from '../core/print/orient/orientation'
import { Rasteriser, type Runs } from '../core/raster/raster'
import { Sections } from '../core/mesh/sections'
import { support } from '../core/print/support/support'
import { hollow } from '../core/shape/hollow'
import { extractSurface } from '../core/volume/extract'
import { sampleField } from '../core/volume/field'
import { MeshDistance, FunctionDistance } from '../core/volume/source'
import { supportWish } from '../core/testBodies'
import { plateRows } from './plates'
import { shapeRows } from './shape'
import { workRows } from './work'
import { say } from '../core/words/say'

/**
 * Speed as ratios to a baseline measured in the same run (methods.md, Speed and size). Seconds are printed only
 * beside them: machines differ and are shared.
 */
const rows: string[][] = []
async function time<T>(work: () => T | Promise<T>): Promise<[number, T]> {
  const t = performance.now()
  const v = await work()
  return [(performance.now() - t) / 1000, v]
}
function row(what: string, ours: number, baseline: string, theirs: number | null, wanted: string, note = ''): void {
  rows.push([
    what,
    `${ours.toFixed(2)} s`,
    theirs === null ? '–' : `${theirs.toFixed(2)} s`,
    theirs === null ? '–' : `${(theirs / ours).toFixed(1)}×`,
    wanted,
    baseline,
    note,
  ])
  console.log(rows.at(-1)!.join(' | '))
}

/** A knobbly body 200 mm tall with the number of faces asked, about. */
function sculpt(faces: number): Mesh {
  const f = new FunctionDistance(
    (x, y, z) =>
      Math.hypot(x / 0.42, y / 0.36, z) * 0.36 - 36 + 1.1 * Math.sin(x * 0.5) * Math.sin(y * 0.45) * Math.sin(z * 0.4),
    1.9,
  )
  const voxel = Math.sqrt(76_000 / faces) * 1.28
  return extractSurface(sampleField(f, { min: [-46, -40, -104], max: [46, 40, 104] }, voxel, 0))
}
const faces = Number(process.argv[2] ?? 1_000_000)
const raw = sculpt(faces)
const lowest = bounds(raw).min[2]
const mesh: Mesh = { positions: raw.positions.map((v, i) => (i % 3 === 2 ? v - lowest : v)), triangles: raw.triangles }
console.log(
  `body: ${faceCount(mesh).toLocaleString('en')} faces, ${bounds(mesh).max[2].toFixed(0)} mm tall\nwhat | ours | baseline | ratio | to reach | baseline is`,
)

const stl = writeStl(mesh)
const [read, again] = await time(() => readStl(stl))
if (!again.ok) throw new Error(say(again.problem.message))
const [readThree] = await time(() =>
  mergeVertices(new STLLoader().parse(stl.buffer as ArrayBuffer).deleteAttribute('normal')),
)
row('read binary STL, welded and indexed', read, 'general 3D library: loader and vertex merge', readThree, '3×')

const geometry = new THREE.BufferGeometry()
geometry.setAttribute('position', new THREE.BufferAttribute(mesh.positions, 3))
geometry.setIndex(new THREE.BufferAttribute(mesh.triangles.slice(), 1))
const [built, tree] = await time(() => buildTree(mesh))
const [builtThree, bvh] = await time(() => new MeshBVH(geometry))
row('tree build', built, 'general BVH library, default strategy', builtThree, '1×')
const points = Float64Array.from(
  { length: 60_000 },
  (_, i) => ((Math.sin(i * 12.9898) * 43758.5453) % 1) * (i % 3 === 2 ? 100 : 45) + (i % 3 === 2 ? 100 : 0),
)
const hit = closest(),
  vector = new THREE.Vector3(),
  target = { point: new THREE.Vector3(), distance: 0, faceIndex: 0 }
const [near] = await time(() => {
  for (let i = 0; i < points.length; i += 3) closestPoint(tree, points[i]!, points[i + 1]!, points[i + 2]!, hit)
})
const [nearThree] = await time(() => {
  for (let i = 0; i < points.length; i += 3)
    bvh.closestPointToPoint(vector.set(points[i]!, points[i + 1]!, points[i + 2]!), target)
})
row('closest point, 20,000', near, 'general BVH library', nearThree, '1×')
const ray = new THREE.Ray()
const cast = (use: (i: number, d: THREE.Vector3) => void): void => {
  for (let i = 0; i < points.length; i += 3)
    use(i, vector.set(Math.sin(i), Math.cos(i * 1.7), Math.sin(i * 0.7)).normalize())
}
const [rays] = await time(() =>
  cast((i, d) => {
    rayFirst(tree, points[i]!, points[i + 1]!, points[i + 2]!, d.x, d.y, d.z)
  }),
)
const [raysThree] = await time(() =>
  cast((i, d) => {
    ray.origin.set(points[i]!, points[i + 1]!, points[i + 2]!)
    ray.direction.copy(d)
    bvh.raycastFirst(ray, THREE.DoubleSide)
  }),
)
row('first ray hit, 20,000', rays, 'general BVH library', raysThree, '1×')

const [hollowed, shell] = await time(() => hollow(mesh, { wall: 2, voxel: 0.5, opening: 1, leastPocket: 100 }))
if (!shell.ok) throw new Error(say(shell.problem.message))
// The library's level set asks the same field at every grid point of the box; a twentieth of the volume is timed and scaled.
const wasm = await Module()
wasm.setup()
const field = new MeshDistance(tree),
  box = bounds(mesh),
  slab = (box.max[2] - box.min[2]) / 20,
  middle = (box.min[2] + box.max[2]) / 2
const [level] = await time(() =>
  wasm.Manifold.levelSet(
    (p) => -(field.sample(p[0], p[1], p[2]) + 2),
    { min: [box.min[0], box.min[1], middle], max: [box.max[0], box.max[1], middle + slab] },
    0.5,
  ).delete(),
)
row(
  'hollow at 0.5 mm voxels, meshed',
  hollowed,
  'level set of the boolean library, same field (1/20 timed, scaled)',
  level * 20,
  '5×',
  `cavity ${(shell.value.report.cavityVolume / 1000).toFixed(0)} ml, wall at least ${shell.value.report.wall.minimum.toFixed(2)} mm`,
)

const W = 11_520,
  H = 5_120,
  sections = new Sections(mesh),
  raster = new Rasteriser(W, H, 0.019, 0.019, -W * 0.0095, -H * 0.0095)
const planes = Array.from({ length: 80 }, (_, i) => (i + 0.5) * (box.max[2] / 80))
let bytes = 0
const [sliced] = await time(() => {
  for (const z of planes) bytes += encodeLayer(raster.draw(sections.segments, sections.at(z))).length
})
const bitmapPng = (runs: Runs): number => {
  const bitmap = new Uint8Array((W + 1) * H)
  for (let y = 0; y < H; y++)
    for (let i = runs.rowStart[y]!; i < runs.rowStart[y + 1]!; i++)
      bitmap.fill(runs.value[i]!, y * (W + 1) + 1 + runs.x[i]!, y * (W + 1) + 1 + runs.x[i]! + runs.length[i]!)
  return deflateSync(bitmap).length
}
const few = planes.filter((_, i) => i % 20 === 10)
const [full] = await time(() => {
  for (const z of few) bitmapPng(raster.draw(sections.segments, sections.at(z)))
})
row(
  `slice and write ${planes.length} layers of ${W} × ${H}`,
  sliced,
  'full bitmap and zlib (4 layers timed, scaled)',
  (full / few.length) * planes.length,
  '15×, 40 layers/s',
  `${(planes.length / sliced).toFixed(0)} layers/s on one thread, ${(bytes / planes.length / 1024).toFixed(0)} KiB a layer`,
)
// As the slicer does it: from the runs that it writes, layer after layer.
const follow = followed([0.019, 0.019], [-W * 0.0095, -H * 0.0095], 0.05),
  graph = follow.graph()
let whole = 0,
  walked = 0
for (let i = 0; i < 400; i++) {
  const begun = performance.now()
  const count = sections.at(box.max[2] * 0.3 + i * 0.05)
  const runs = raster.draw(sections.segments, count)
  encodeLayer(runs)
  const sliced = performance.now()
  graph.push(follow.of(runs))
  whole += sliced - begun
  walked += performance.now() - sliced
}
row('islands, cups and peel, 400 layers', walked / 1000, 'slicing the same layers', whole / 1000, '10×')
const lean = await simplify(mesh, 30_000, 0.4)
const [oriented, scores] = await time(() => scoreOrientations(lean, { limit: 40, volume: [240, 120, 260] }))
row(`${scores.length} orientations scored`, oriented, '', null, '5 s')
// Lying on its side the body overhangs along its whole length.
const lying = transformed(lean, fromQuaternion([Math.SQRT1_2, 0, 0, Math.SQRT1_2]), [0, 0, 0])
const [supported, held] = await time(() => support(lying, { ...supportWish, spacing: 1.5 }))
row('supports', supported, '', null, '10 s for 2,000 tips', held.ok ? `${held.value.report.tips.length} tips` : '')
await shapeRows(mesh, time, row)
await workRows(time, row)
await plateRows(time, row)

const coloursOf = (i: number): string =>
  `#${((Math.imul(i + 7, 2_654_435_761) >>> 8) & 0xffffff).toString(16).padStart(6, '0')}`
const stock: StockPaint[] = Array.from({ length: 120 }, (_, i) => ({
  id: String(i),
  name: String(i),
  lab: hexToLab(coloursOf(i)),
  opacity: 0.5 + (i % 5) / 10,
  kind: 'acrylic',
}))
const optics = new Map(stock.map((p) => [p.id, opticsOf(p.lab, p.opacity)]))
const goal = hexToLab('#a0705a')
const known = stock.map((p) => optics.get(p.id)!)
searchMixes(known, hexToLab('#5a70a0'))
const [recipe] = await time(() => searchMixes(known, goal))
// Exhaustive over all 120 is four thousand million mixes: the same answer is asked of the first 30, fourteen million.
const some = known.slice(0, 30)
const [everything, all] = await time(() => everyMix(some, goal))
const [short, ours] = await time(() => searchMixes(some, goal)!)
row(
  'recipe from 120 paints, 4 at most',
  recipe,
  'exhaustive search (30 paints)',
  everything,
  '0.05 s, same answer',
  `of 30 paints in ${short.toFixed(2)} s: closest ΔE00 ${ours.closest.error.toFixed(4)}, exhaustive ${all.closest.error.toFixed(4)}; first ${rankOf(ours.simplest) === rankOf(all.simplest) ? 'the same' : 'another'}`,
)
const [mapping, mapped] = await time(() => surfaceMaps(lean, { brush: 1.2, direction: [0, -0.34, 0.94] }))
row(`surface maps, ${(lean.positions.length / 3).toLocaleString('en')} vertices`, mapping, '', null, '')
const skin = {
  // The sculpt's own maps, as often as it takes.
  maps: Float32Array.from({ length: 200_000 * MAPS }, (_, i) => mapped.data[i % mapped.data.length]!),
  positions: Float32Array.from({ length: 600_000 }, (_, i) => 100 * Math.abs(Math.sin(i))),
  spacing: 0.5,
}
const laid = (['base', 'wash', 'dry brush', 'airbrush', 'layer', 'glaze', 'chips', 'powder'] as const).map(
  (technique, seed) => ({ technique, tool: 'brush' as const, grain: 1.5, coverage: 0.4, seed, hand: HAND }),
)
const [surface, levels] = await time(() => laid.map((c) => levelsOf(c, skin, null)))
const sculptPainter = new Painter(skin.maps),
  regions = new Uint8Array(200_000)
const step = (film: number): Painted => {
  const ground = undercoated('zenithal')
  const coats = laid.map(({ technique }, i): Coating => ({
    technique,
    optics: optics.get(String(i))!,
    film: i === 3 ? film : 15,
    sheen: 'matt',
    levels: levels[i]!,
  }))
  const stacks = new Map([[0, { ground, coats }]])
  return sculptPainter.paint(regions, stacks, ground, lampWeights(2700))
}
// What runs for the second time is compiled.
step(14)
const [stack] = await time(() => step(14))
step(15)
const [dragged] = await time(() => {
  for (let film = 16; film < 26; film++) step(film)
})
row('share of eight coats at 200,000 vertices, asked once', surface, '', null, '')
row(
  'layer-stack preview, 200,000 vertices, 8 coats, a slider step',
  dragged / 10,
  'the whole stack again',
  stack,
  '0.1 s',
)
