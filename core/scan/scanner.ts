import { bounds, boxDiagonal, type Mesh } from '../mesh/mesh'
import { rayFirst } from '../mesh/ray'
import { treeOf } from '../mesh/tree'
import { frame, fromQuaternion, type Matrix3, type Vector3 } from '../math/vectors'
import { transformed } from '../mesh/transform'
import { silent, type Report } from '../answer'
import { evenNumbers, normalNumbers } from '../math/random'

export interface ScannerOptions {
  /** where it stands round the object: degrees about z from the front, degrees above the floor */
  stations: readonly { azimuth: number; elevation: number }[]
  /** rays across each picture */
  across: number
  /** standard deviation along the ray, share of the object's diagonal */
  noise: number
  /** share of the rays that bring nothing back */
  dropouts: number
  /** whether the floor round the object is seen too */
  floor: boolean
  /** same seed, same scan */
  seed: number
}

/**
 * Stands in for a structured-light scanner in the demo workshop: rays from each station, noise along them, dropouts,
 * what is hidden stays hidden, steep skin is mostly lost, and the floor comes along. The cloud is in units that only
 * the seed knows and turned as it happened to stand, so that calibration has something to find out.
 *
 * @returns a cloud without normals, and how many of its units are a millimetre of the object (for tests only)
 */
export function scan(
  object: Mesh,
  options: ScannerOptions,
  report: Report = silent,
): { cloud: Mesh; unitsPerMm: number } {
  const even = evenNumbers(options.seed),
    normal = normalNumbers(even)
  const box = bounds(object)
  const size = boxDiagonal(box)
  const centre: Vector3 = [0, 1, 2].map((k) => (box.min[k]! + box.max[k]!) / 2) as never
  const tree = treeOf(object)
  const reach = size * 2.4
  const width = size * 1.25
  const points: number[] = []
  for (const [s, station] of options.stations.entries()) {
    report(s / options.stations.length)
    const a = (station.azimuth * Math.PI) / 180,
      e = (station.elevation * Math.PI) / 180
    const out: Vector3 = [Math.sin(a) * Math.cos(e), -Math.cos(a) * Math.cos(e), Math.sin(e)]
    const eye: Vector3 = [0, 1, 2].map((k) => centre[k]! + out[k]! * reach) as never
    const [u, v] = frame([-out[0], -out[1], -out[2]])
    for (let j = 0; j < options.across; j++)
      for (let i = 0; i < options.across; i++) {
        const lost = even() < options.dropouts
        const x = ((i + even()) / options.across - 0.5) * width,
          y = ((j + even()) / options.across - 0.5) * width
        const d = [0, 1, 2].map((k) => centre[k]! + u[k]! * x + v[k]! * y - eye[k]!)
        const l = Math.hypot(...d)
        const [dx, dy, dz] = d.map((c) => c / l) as [number, number, number]
        if (lost) continue
        const hit = rayFirst(tree, ...eye, dx, dy, dz)
        let t = hit?.t ?? Infinity
        if (hit) {
          // Light that grazes comes back too weak to be told from the room's.
          const facing = Math.abs(facingOf(object, hit.face, dx, dy, dz))
          if (even() > Math.min(1, facing / 0.35)) continue
        }
        if (options.floor && dz < 0) {
          const down = (box.min[2] - eye[2]) / dz
          const fx = eye[0] + dx * down - centre[0],
            fy = eye[1] + dy * down - centre[1]
          if (down < t && Math.hypot(fx, fy) < size * 0.55) t = down
        }
        if (t === Infinity) continue
        t += normal() * options.noise * size
        points.push(eye[0] + dx * t, eye[1] + dy * t, eye[2] + dz * t)
      }
  }
  const unitsPerMm = 0.2 + 3 * even()
  const turn = fromQuaternion([0.05 * normal(), 0.05 * normal(), even() - 0.5, even() + 0.2])
  const m = turn.map((c) => c * unitsPerMm) as unknown as Matrix3
  const cloud = transformed({ positions: new Float32Array(points), triangles: new Uint32Array(0) }, m, [
    20 * normal(),
    20 * normal(),
    20 * normal(),
  ])
  return { cloud, unitsPerMm }
}

function facingOf({ positions: p, triangles: t }: Mesh, f: number, dx: number, dy: number, dz: number): number {
  const a = t[f * 3]! * 3,
    b = t[f * 3 + 1]! * 3,
    c = t[f * 3 + 2]! * 3
  const ux = p[b]! - p[a]!,
    uy = p[b + 1]! - p[a + 1]!,
    uz = p[b + 2]! - p[a + 2]!
  const vx = p[c]! - p[a]!,
    vy = p[c + 1]! - p[a + 1]!,
    vz = p[c + 2]! - p[a + 2]!
  const x = uy * vz - uz * vy,
    y = uz * vx - ux * vz,
    z = ux * vy - uy * vx
  return (x * dx + y * dy + z * dz) / (Math.hypot(x, y, z) || 1)
}
