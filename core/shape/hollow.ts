import { bad, good, part, silent, type Answer, type Report } from '../answer'
import { bounds, boxSize, concatenate, faceCount, keepFaces, reversed, type Mesh } from '../mesh/mesh'
import { measure } from '../mesh/measure'
import { shellFacts } from '../mesh/shellFacts'
import { isClosed } from '../mesh/topology'
import { simplify } from '../mesh/simplify'
import { erodedAndOpened } from '../volume/offset'
import { measureWall, type WallMeasure } from './wall'

export interface HollowOptions {
  /** mm between outer and inner skin */
  wall: number
  /** mm; field sampling */
  voxel: number
  /** mm; slits and needles of the cavity narrower than twice this are closed, for resin would not leave them */
  opening: number
  /** mm³; cavities smaller than this stay solid */
  leastPocket: number
}

export interface HollowReport {
  wallAsked: number
  wall: WallMeasure
  cavities: number
  cavityVolume: number
  /** mm³ */
  volumeBefore: number
  volumeAfter: number
  centreBefore: [number, number, number]
  centreAfter: [number, number, number]
  pocketsFilled: number
}

/**
 * Cavity = body eroded by the wall, then opened by a ball (methods.md 3): what balls of that
 * radius reach whose centres lie at depth wall + opening or deeper. Both steps are Euclidean, so no point of the
 * cavity is nearer to the skin than the wall, up to the surface's own half voxel.
 */
export async function hollow(
  mesh: Mesh,
  options: HollowOptions,
  report: Report = silent,
): Promise<Answer<{ mesh: Mesh; report: HollowReport }>> {
  const { wall, voxel, opening } = options
  const before = measure(mesh)
  const cells = boxSize(bounds(mesh)).reduce((n, s) => n * (s / voxel + 8), 1)
  if (cells > 8e9)
    return bad(
      'voxel-too-small',
      `A voxel of ${voxel} mm is too fine for a body ${Math.max(...before.size).toFixed(0)} mm long. Use ${(Math.max(...before.size) / 1500).toFixed(2)} mm or more.`,
    )
  const grown = erodedAndOpened(mesh, wall, opening, voxel, part(report, 0, 0.8))
  const { mesh: cavity, dropped, kept } = dropSmall(grown, options.leastPocket)
  if (kept === 0) return noInside(wall, opening)
  // Nobody sees the inner skin: a twentieth of a voxel of deviation is below what the wall is measured to.
  const lean = await simplify(cavity, Math.max(2000, faceCount(cavity) / 6), voxel / 20)
  const inner = isClosed(lean) ? lean : cavity
  report(0.95)
  const result = concatenate([mesh, reversed(inner)])
  const after = measure(result)
  return good({
    mesh: result,
    report: {
      wallAsked: wall,
      wall: measureWall(mesh, inner),
      cavities: kept,
      cavityVolume: measure(inner).volume,
      volumeBefore: before.volume,
      volumeAfter: after.volume,
      centreBefore: before.centre,
      centreAfter: after.centre,
      pocketsFilled: dropped,
    },
  })
}

const noInside = (wall: number, opening: number): ReturnType<typeof bad> =>
  bad(
    'no-inside',
    `Nothing inside is deeper than ${(wall + opening).toFixed(1)} mm, so a ${wall} mm wall leaves no cavity worth having. Print it solid, or try a thinner wall.`,
  )

function dropSmall(mesh: Mesh, least: number): { mesh: Mesh; dropped: number; kept: number } {
  const { shellOf, volumes } = shellFacts(mesh)
  // A negative shell is an island of material inside a cavity: it belongs to the wall and stays as it is.
  const small = [...volumes].map((v) => v >= 0 && v < least)
  const dropped = small.filter(Boolean).length
  if (dropped === 0) return { mesh, dropped, kept: [...volumes].filter((v) => v > 0).length }
  return {
    mesh: keepFaces(
      mesh,
      Uint8Array.from(shellOf, (s) => (small[s] ? 0 : 1)),
    ),
    dropped,
    kept: [...volumes].filter((v) => v >= least).length,
  }
}
