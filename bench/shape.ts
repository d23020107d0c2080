import { fitOf, gapMap } from '../core/fit/gap'
import { boxSize, bounds, concatenate, faceCount, type Mesh } from '../core/mesh/mesh'
import { vertexNormals } from '../core/mesh/measure'
import { simplify } from '../core/mesh/simplify'
import { identity3 } from '../core/math/vectors'
import { transformed } from '../core/mesh/transform'
import { treeOf } from '../core/mesh/tree'
import { leanCopy, pose, spreadTo } from '../core/pose/pose'
import { bonesOf, motionsOf, type Joint } from '../core/pose/skeleton'
import { skinned } from '../core/pose/skin'
import { boneWeights } from '../core/pose/weights'
import { common } from '../core/shape/solid'
import { rebuild } from '../core/volume/rebuild'
import { sampleField } from '../core/volume/field'
import { MeshDistance } from '../core/volume/source'
import { say } from '../core/words/say'

type Time = <T>(work: () => T | Promise<T>) => Promise<[number, T]>
type Row = (what: string, ours: number, baseline: string, theirs: number | null, wanted: string, note?: string) => void

/** Shape: fit, rebuild and pose of the same knobbly body. */
export async function shapeRows(mesh: Mesh, time: Time, row: Row): Promise<void> {
  const half = await simplify(mesh, 500_000, 1)
  const across = boxSize(bounds(half))
  const beside = transformed(half, identity3, [across[0] + 0.05, 0, 0])
  const [boolean] = await time(() => common([half, beside]))
  const [fit, report] = await time(() => fitOf(half, beside))
  if (!report.ok) throw new Error(say(report.problem.message))
  const [map] = await time(() => gapMap(half, vertexNormals(half), beside, 3))
  row(
    `fit of two parts, ${faceCount(half).toLocaleString('en')} faces each`,
    fit,
    'intersection by the boolean library alone',
    boolean,
    '3 s',
    `map per vertex ${map.toFixed(2)} s; ${report.value.area.toFixed(0)} mm² facing`,
  )
  const soup = concatenate([half, transformed(half, identity3, [7, 4, 3])])
  const torn: Mesh = { positions: soup.positions, triangles: soup.triangles.slice(0, 1_500_000) }
  const voxel = Math.max(...boxSize(bounds(torn))) / 256
  const [plain] = await time(() => sampleField(new MeshDistance(treeOf(torn)), bounds(torn), voxel, 0))
  const [rebuilt, made] = await time(() => rebuild(torn, voxel))
  row(
    `winding-number rebuild of ${faceCount(torn).toLocaleString('en')} faces, 256 voxels across`,
    rebuilt,
    'sampling that field alone, sign by search',
    plain,
    '20 s',
    `${faceCount(made).toLocaleString('en')} faces`,
  )
  const h = (30 * Math.PI) / 360
  const joints: Joint[] = [0.1, 0.5, 0.9].map((t, i) => ({
    name: `joint ${i}`,
    parent: i - 1,
    position: [0, 0, t * across[2]],
    turn: i === 1 ? [Math.sin(h), 0, 0, Math.cos(h)] : [0, 0, 0, 1],
  }))
  const [posed, whole] = await time(() => pose(mesh, { joints, rigid: null, settle: true }))
  if (!whole.ok) throw new Error(say(whole.problem.message))
  const shown = await simplify(mesh, 120_000, 1)
  const lean = await leanCopy(shown)
  const { weights } = spreadTo(shown, lean, boneWeights(lean, bonesOf(joints), 3), 3, null)
  const [step] = await time(() => skinned(shown.positions, weights, motionsOf(joints)))
  row(
    `pose, ${faceCount(mesh).toLocaleString('en')} faces`,
    posed,
    '',
    null,
    '5 s, 10 previews a second',
    `one preview of ${faceCount(shown).toLocaleString('en')} faces ${(step * 1000).toFixed(0)} ms; volume ${(100 * whole.value.report.volumeChange).toFixed(2)} %`,
  )
}
