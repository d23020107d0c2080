import { bad, good, part, silent, type Answer, type Report } from '../answer'
import { bounds, boxSize, concatenate, faceCount, keepFaces, reversed, type Mesh } from '../mesh/mesh'
import { measure } from '../mesh/measure'
import { shellFacts } from '../mesh/shellFacts'
import { isClosed } from '../mesh/topology'
import { simplify } from '../mesh/simplify'
import { erodedAndOpened } from '../volume/offset'
import { depthInside, solidGrid } from '../volume/solidGrid'
import { infillOf, type Infill } from './infill'
import { subtract } from './solid'
import { thickWallPad, type ThickerWall } from './thickWall'
import { measureWall, type WallMeasure } from './wall'
import { fixed } from '../words/format'
import { message } from '../words/message'

export interface HollowOptions {
  /** mm between outer and inner skin */
  wall: number
  /** mm; field sampling */
  voxel: number
  /** mm; slits and needles of the cavity narrower than twice this are closed, for resin would not leave them */
  opening: number
  /** mm³; cavities smaller than this stay solid */
  leastPocket: number
  /** where a brush, or what a place carries, asks for more wall */
  thicker?: ThickerWall
  /** what stiffens the cavity */
  fill?: Infill
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
  /** mm, centre of what the cavities hold: where a casting would weigh */
  cavityCentre: [number, number, number]
  /** mm, radius of the largest ball in the cavities: how thick a casting would be at its thickest, halved */
  cavityRadius: number
  /** mm³ that thicker places and fill keep solid */
  kept: number
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
      message('problems.hollow.aVoxelOfMmIs', {
        voxel,
        size: fixed(Math.max(...before.size), 0),
        n: fixed(Math.max(...before.size) / 1500, 2),
      }),
    )
  const grown = erodedAndOpened(mesh, wall, opening, voxel, part(report, 0, 0.8))
  const plain = dropSmall(grown, options.leastPocket)
  if (plain.kept === 0) return noInside(mesh, wall, opening)
  // Nobody sees the inner skin: a twentieth of a voxel of deviation is below what the wall is measured to.
  const lean = await simplify(plain.mesh, Math.max(2000, faceCount(plain.mesh) / 6), voxel / 20)
  const bare = isClosed(lean) ? lean : plain.mesh
  const room = await furnished(mesh, bare, options, part(report, 0.8, 0.95))
  if (!room.ok) return room
  const { mesh: inner, dropped, kept } = dropSmall(room.value, options.leastPocket)
  if (kept === 0) return noInside(mesh, wall, opening)
  const result = concatenate([mesh, reversed(inner)])
  const after = measure(result),
    held = measure(inner)
  return good({
    mesh: result,
    report: {
      wallAsked: wall,
      // Of what stands inside the cavity only the side toward the skin is wall.
      wall: measureWall(mesh, bare),
      cavities: kept,
      cavityVolume: held.volume,
      volumeBefore: before.volume,
      volumeAfter: after.volume,
      centreBefore: before.centre,
      centreAfter: after.centre,
      pocketsFilled: plain.dropped + dropped,
      cavityCentre: held.centre,
      cavityRadius: widest(inner),
      kept: Math.max(0, measure(bare).volume - held.volume),
    },
  })
}

/** The cavity less what thicker walls and fill take of it. */
async function furnished(
  mesh: Mesh,
  cavity: Mesh,
  { wall, voxel, thicker, fill }: HollowOptions,
  report: Report,
): Promise<Answer<Mesh>> {
  const pad = thicker ? thickWallPad(mesh, thicker, wall, voxel) : null
  const room = pad && pad.triangles.length > 0 ? await subtract(cavity, [pad]) : good(cavity)
  if (!room.ok || !fill) return room
  report(0.3)
  const bodies = infillOf(room.value, fill, voxel, part(report, 0.3, 0.8))
  return bodies.triangles.length > 0 ? subtract(room.value, [bodies]) : room
}

/** Cells along the longest side in which the widest place of a cavity is looked for. */
const LOOKED = 90
function widest(cavity: Mesh): number {
  const grid = solidGrid([cavity], Math.max(...boxSize(bounds(cavity))) / LOOKED)
  return depthInside(grid).reduce((a, b) => Math.max(a, b), 0)
}

/** That there is nothing to hollow, and the thickest wall with which there would be. */
function noInside(mesh: Mesh, wall: number, opening: number): ReturnType<typeof bad> {
  const deepest = widest(mesh)
  // As much cavity as a hole is wide is the least that drains.
  const thickest = Math.floor(10 * (deepest - opening - LEAST_CAVITY)) / 10
  const thinner = thickest >= LEAST_WALL
  return bad(
    'no-inside',
    message('problems.hollow.nothingInsideIsDeeperThan', {
      wall: fixed(wall + opening, 1),
      wall2: wall,
      deepest: fixed(deepest, 1),
      thinner,
      thickest: fixed(thickest, 1),
    }),
  )
}
/** mm */
const LEAST_CAVITY = 1,
  LEAST_WALL = 0.8

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
