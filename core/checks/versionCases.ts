import type { CheckKind } from './registry'
import type { OperationKind } from '../operations/registry'

/** Names of the fixed bodies that the version test makes. */
export type BodyName = 'box' | 'ball' | 'pair' | 'lid' | 'shell' | 'drilled' | 'chain' | 'turned' | 'rod' | 'cloud'

/** A fixed question for each kind of operation, so that its answer can be held against its version. */
export const OPERATION_CASES: Record<OperationKind, { of: BodyName; others?: BodyName[]; op: object }> = {
  base: { of: 'box', op: { width: 30, depth: 24, height: 6, side: 'stepped', top: 'cobbles' } },
  nameplate: { of: 'rod', op: { text: 'No 1', letter: 3, recess: 0.6 } },
  trim: { of: 'cloud', op: { planes: [{ point: [0, 0, -2], normal: [0, 0, 1] }] } },
  surface: { of: 'cloud', op: { voxel: 1 } },
  rebuild: { of: 'pair', op: { voxel: 0.8 } },
  repair: { of: 'pair', op: {} },
  calibrate: { of: 'ball', op: { from: [-10, 0, 0], to: [10, 0, 0], distance: 30 } },
  smooth: { of: 'chain', op: { passes: 4 } },
  simplify: { of: 'chain', op: { faces: 400 } },
  pose: {
    of: 'rod',
    op: {
      joints: [
        { name: 'root', parent: -1, position: [0, 0, 2] },
        { name: 'bend', parent: 0, position: [0, 0, 20], turn: [Math.sin(0.3), 0, 0, Math.cos(0.3)] },
      ],
    },
  },
  place: { of: 'chain', op: { quaternion: [0, 0, Math.SQRT1_2, Math.SQRT1_2], shift: [1, 2, 3], mirror: true } },
  scale: { of: 'ball', op: { factor: 1.25, axes: [1, 1, 1.5] } },
  thicken: { of: 'lid', op: { dabs: [{ point: [14, 14, 41.2], radius: 5 }], by: 0.4, voxel: 0.3 } },
  join: { of: 'box', others: ['ball'], op: { mode: 'blend', others: [{ part: 'ball' }], fillet: 2, voxel: 0.8 } },
  cut: { of: 'chain', op: { point: [0, 0, 4], normal: [0, 0.6, 0.8], keep: 'above' } },
  fix: {
    of: 'rod',
    op: { fixings: [{ shape: 'pin', role: 'plug', point: [0, 0, 40], direction: [0, 0, 1], width: 3, length: 12 }] },
  },
  bay: { of: 'box', op: { centre: [15, 15], width: 12, depth: 12, height: 5 } },
  channel: { of: 'box', op: { path: [[15, 15, 0], [15, 15, 40]] } }, // prettier-ignore
  focal: { of: 'ball', op: { dabs: [{ point: [0, -10, 0], radius: 3 }] } },
  plug: { of: 'ball', op: { point: [0, -10, 0], direction: [0, 1, 0], diameter: 4, depth: 3 } },
  guide: { of: 'rod', op: { point: [0, 0, 40], direction: [0, 0, -1], bore: 2, radius: 4 } },
  hollow: { of: 'box', op: { wall: 2, voxel: 0.8, fill: { kind: 'gyroid', spacing: 9, thickness: 1.2 } } },
  drill: { of: 'shell', op: { holes: [{ point: [15, 15, 0], direction: [0, 0, 1], diameter: 4 }] } },
  orient: { of: 'chain', op: { quaternion: [Math.sin(0.2), 0, 0, Math.cos(0.2)] } },
  support: { of: 'turned', op: { spacing: 4, edits: [{ kind: 'add', point: [3, 0, 2], grade: 'post' }] } },
}

const printer = {
  name: 'Test',
  pixelsX: 400,
  pixelsY: 300,
  pitchX: 0.2,
  pitchY: 0.2,
  height: 120,
  layerHeight: 0.4,
}
const resin = { name: 'Test' }
const detail = { layerHeight: 0.05, pitch: 0.05, film: 0.03 }

/** A fixed question for each kind of check; of those that read a file, the file is made by the test. */
export const CHECK_CASES: Record<CheckKind, { of: BodyName; others?: BodyName[]; ask: object }> = {
  health: { of: 'pair', ask: {} },
  display: { of: 'chain', ask: { faces: 1000 } },
  drainSites: { of: 'shell', ask: { diameter: 4, down: [0, 0, -1] } },
  holeNear: { of: 'shell', ask: { point: [15, 15, 0], diameter: 4 } },
  ventSite: { of: 'shell', ask: { point: [15, 15, 2.2], quaternion: [0, 0, 0, 1], shift: [0, 0, 0], diameter: 3 } },
  orientations: { of: 'chain', ask: { limit: 40, volume: [80, 60, 100] } },
  coveredDabs: { of: 'box', others: ['lid'], ask: { spacing: 4 } },
  presupported: { of: 'box', ask: {} },
  stepsMap: { of: 'ball', ask: { up: [0, 0, 1], layerHeight: 0.05 } },
  thinness: { of: 'lid', ask: { limit: 2 } },
  thicknessMap: { of: 'lid', ask: {} },
  detail: { of: 'chain', ask: { ...detail, factors: [0.5, 1] } },
  detailMap: { of: 'chain', others: ['chain'], ask: { ...detail, factor: 1 } },
  stretchMap: { of: 'rod', others: ['rod', 'rod'], ask: {} },
  restingPlaces: { of: 'ball', others: ['ball', 'ball'], ask: {} },
  axis: { of: 'rod', ask: { point: [8, 0, 20] } },
  skinLine: { of: 'rod', ask: { places: [[8, 0, 5], [0, 8, 30], [-8, 0, 12]], closed: true } }, // prettier-ignore
  cutPlanes: { of: 'rod', ask: { volume: [30, 30, 30] } },
  lightRoute: { of: 'box', ask: { others: [], from: [15, 15, 0], to: [15, 0, 30], diameter: 3, wall: 1.5 } },
  wallLoad: { of: 'rod', ask: { wall: 2, density: 1.1 } },
  coreChoices: { of: 'box', others: ['shell'], ask: { casting: 1.1, wall: 2, density: 1.1 } },
  trapped: { of: 'drilled', ask: { down: [0, 0, -1] } },
  rinse: { of: 'drilled', ask: { holes: [{ point: [15, 15, 0], direction: [0, 0, 1], diameter: 4 }] } },
  layers: { of: 'turned', ask: { step: 0.5 } },
  archive: { of: 'ball', ask: {} },
  slice: { of: 'turned', ask: { printer, resin } },
  nest: {
    of: 'lid',
    others: ['rod'],
    ask: {
      parts: [
        { id: 'lid', copies: 2, turn: true },
        { id: 'rod', copies: 1, turn: false },
      ],
      printers: [{ ...printer, id: 'one' }],
      resin,
    },
  },
  plate: { of: 'lid', others: ['rod'], ask: { parts: [{ of: 0, x: 1, y: 2, angle: 0.5 }, { of: 1, x: 20, y: 0, angle: 0 }] } }, // prettier-ignore
  export: { of: 'pair', ask: { format: '3mf', name: 'pair' } },
  outlines: { of: 'turned', ask: { format: 'svg', printer } },
  measures: { of: 'chain', ask: {} },
  cusps: { of: 'ball', ask: { up: [0, 0, 1], layerHeight: 0.05 } },
  access: { of: 'box', others: ['lid'], ask: {} },
  rest: { of: 'lid', others: ['ball'], ask: {} },
  inward: { of: 'ball', ask: { point: [0, -10, 0], normal: [0, -1, 0] } },
  floor: { of: 'cloud', ask: {} },
  scan: { of: 'ball', ask: { stations: [{ azimuth: 0, elevation: 20 }, { azimuth: 180, elevation: 20 }], across: 40, seed: 3 } }, // prettier-ignore
  fit: { of: 'box', others: ['lid'], ask: { reach: 3 } },
  gapMap: { of: 'box', others: ['lid'], ask: { reach: 3 } },
  difference: { of: 'ball', others: ['chain'], ask: {} },
  balance: { of: 'rod', ask: { others: [], weights: [{ density: 1.1 }] } },
  keySites: { of: 'rod', ask: { point: [0, 0, 20], normal: [0, 0, 1], wall: 1.5, clearance: 0.1, draft: 3 } },
  surfaceMaps: { of: 'chain', ask: { brush: 1, direction: [0, 0, 1] } },
  import: { of: 'pair', ask: { fileName: 'pair.stl' } },
}
