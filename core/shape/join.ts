import { bad, good, part, silent, type Answer, type Report } from '../answer'
import { bounds, type Box, type Mesh } from '../mesh/mesh'
import { measure } from '../mesh/measure'
import { treeOf } from '../mesh/tree'
import { extractSurface, projectOnto } from '../volume/extract'
import { sampleField } from '../volume/field'
import { smoothMin } from '../volume/primitives'
import { FunctionDistance, MeshDistance, type DistanceSource } from '../volume/source'
import { common, subtract, unite } from './solid'
import { message } from '../words/message'

export interface JoinOptions {
  mode: 'union' | 'subtract' | 'blend' | 'relieve'
  /** blend: mm, radius of the fillet where the two meet at a right angle */
  fillet: number
  /** relieve: mm per side that is kept clear of the other part */
  clearance: number
  /** mm, of fillets and of grown parts */
  voxel: number
}
export interface JoinReport {
  /** mm³ */
  volumeBefore: number
  volumeAfter: number
  /** mm³ that both had in common */
  overlap: number
}

/** A fillet of radius r between perpendicular faces leaves the corner by r(1 − 1/√2); a blend of width k by k/4. */
export const blendWidth = (fillet: number): number => 4 * (1 - Math.SQRT1_2) * fillet
/** A part of which less than this share adds to the union is swallowed. */
const SWALLOWED = 0.005

/**
 * Joins other parts to this one, or takes them off it. Away from the joint every face stays as it was: a blend adds
 * only its fillet, relief takes away only what is too near.
 */
export async function join(
  mesh: Mesh,
  others: readonly Mesh[],
  o: JoinOptions,
  report: Report = silent,
): Promise<Answer<{ mesh: Mesh; report: JoinReport }>> {
  if (others.length === 0) return bad('no-other-part', message('problems.join.thereIsNoOtherPart'))
  const volumeBefore = measure(mesh).volume
  let overlap = 0
  for (const other of others) {
    const shared = await common([mesh, other])
    if (!shared.ok) return shared
    const both = measure(shared.value).volume
    overlap += both
    if ((o.mode === 'union' || o.mode === 'blend') && both > (1 - SWALLOWED) * measure(other).volume)
      return bad('part-swallowed', message('problems.join.theOtherPartIsCompletely'))
  }
  const joined = await joinedMesh(mesh, others, o, report)
  if (!joined.ok) return joined
  const volumeAfter = measure(joined.value).volume
  if (joined.value.triangles.length === 0) return bad('nothing-left', message('problems.join.nothingWouldBeLeftOf'))
  return good({ mesh: joined.value, report: { volumeBefore, volumeAfter, overlap } })
}

async function joinedMesh(mesh: Mesh, others: readonly Mesh[], o: JoinOptions, report: Report): Promise<Answer<Mesh>> {
  switch (o.mode) {
    case 'union':
      return unite([mesh, ...others])
    case 'subtract':
      return subtract(mesh, others)
    case 'blend': {
      let whole = mesh
      for (const [i, other] of others.entries()) {
        const fillet = filletBetween(whole, other, o, part(report, i / others.length, (i + 0.9) / others.length))
        if (!fillet.ok) return fillet
        const united = await unite([whole, other, ...(fillet.value.triangles.length > 0 ? [fillet.value] : [])])
        if (!united.ok) return united
        whole = united.value
      }
      return good(whole)
    }
    case 'relieve': {
      const tools: Mesh[] = []
      for (const [i, other] of others.entries()) {
        if (o.clearance <= 0) tools.push(other)
        else {
          const tool = grownNear(mesh, other, o, part(report, i / others.length, (i + 0.9) / others.length))
          if (!tool.ok) return tool
          if (tool.value.triangles.length > 0) tools.push(tool.value)
        }
      }
      return tools.length === 0 ? good(mesh) : subtract(mesh, tools)
    }
  }
}

/** Samples along the longest side of the place that is worked on; more would take minutes. */
const MAX_ACROSS = 1200

function meshed(source: DistanceSource, box: Box, voxel: number, report: Report): Answer<Mesh> {
  if (Math.max(...[0, 1, 2].map((k) => box.max[k]! - box.min[k]!)) / voxel > MAX_ACROSS)
    return bad('too-fine', message('problems.join.theVoxelIsTooSmall'))
  const surface = extractSurface(sampleField(source, box, voxel, 0, part(report, 0, 0.8)))
  projectOnto(surface, source, 0, voxel, part(report, 0.8, 1))
  return good(surface)
}

/** Solid that fills the corner between two bodies: where their smooth minimum is inside and neither is much nearer. */
function filletBetween(a: Mesh, b: Mesh, o: JoinOptions, report: Report): Answer<Mesh> {
  const width = blendWidth(o.fillet)
  const box = meeting(a, b, width)
  if (!box) return good({ positions: new Float32Array(0), triangles: new Uint32Array(0) })
  const source = fillet(new MeshDistance(treeOf(a)), new MeshDistance(treeOf(b)), width, o.voxel)
  return meshed(source, box, o.voxel, report)
}

function fillet(a: DistanceSource, b: DistanceSource, width: number, voxel: number): DistanceSource {
  const value = (x: number, y: number, z: number): number => {
    const da = a.sample(x, y, z),
      db = b.sample(x, y, z)
    // A hair inside, so that it never pokes through where it runs out on the bodies' own faces; and not deep in them.
    return Math.max(
      smoothMin(da, db, width) + 0.02 * voxel,
      Math.abs(da - db) - width,
      -Math.max(da, db) - width / 2 - voxel,
    )
  }
  return new FunctionDistance(value, 2, voxel / 8)
}

/** The other part grown by the clearance, only as far as it comes near this one. */
function grownNear(mesh: Mesh, other: Mesh, { clearance, voxel }: JoinOptions, report: Report): Answer<Mesh> {
  const box = meeting(mesh, other, clearance + 2 * voxel)
  if (!box) return good({ positions: new Float32Array(0), triangles: new Uint32Array(0) })
  return meshed(new Grown(new MeshDistance(treeOf(other)), clearance, box), box, voxel, report)
}

/** Distance to a grown body, cut off at a box. */
class Grown implements DistanceSource {
  readonly lipschitz = 1
  private readonly point = new Float64Array(3)
  private side = -1
  constructor(
    private readonly body: DistanceSource,
    private readonly by: number,
    private readonly box: Box,
  ) {}
  sample(x: number, y: number, z: number): number {
    const p = this.point
    p[0] = x
    p[1] = y
    p[2] = z
    let value = this.body.sample(x, y, z) - this.by
    this.side = -1
    for (let k = 0; k < 3; k++) {
      for (const [s, d] of [
        [2 * k, this.box.min[k]! - p[k]!],
        [2 * k + 1, p[k]! - this.box.max[k]!],
      ] as const)
        if (d > value) {
          value = d
          this.side = s
        }
    }
    return value
  }
  gradient(out: Float64Array): void {
    if (this.side < 0) return this.body.gradient(out)
    out.fill(0)
    out[this.side >> 1] = this.side & 1 ? 1 : -1
  }
}

/** Where two bodies come within `reach` of each other, by their boxes; null when they do not. */
function meeting(a: Mesh, b: Mesh, reach: number): Box | null {
  const p = bounds(a),
    q = bounds(b)
  const box: Box = { min: [0, 0, 0], max: [0, 0, 0] }
  for (let k = 0; k < 3; k++) {
    box.min[k] = Math.max(p.min[k]!, q.min[k]!) - reach
    box.max[k] = Math.min(p.max[k]!, q.max[k]!) + reach
    if (box.min[k]! >= box.max[k]!) return null
  }
  return box
}
