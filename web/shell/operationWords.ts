import type { OperationRecord } from '../../contract/operations'

const mm = (v: number): string => `${Number(v.toFixed(2))} mm`

/** An operation as one would say it at the bench. */
export function operationWords(op: OperationRecord): string {
  switch (op.kind) {
    case 'base':
      return `base, ${Number(op.width.toFixed(1))} × ${Number(op.depth.toFixed(1))} × ${mm(op.height)}`
    case 'nameplate':
      return `nameplate “${op.text.split('\n').join(' / ')}”`
    case 'trim':
      return op.box
        ? 'cropped to a box'
        : `trimmed by ${op.planes.length === 1 ? 'a plane' : `${op.planes.length} planes`}`
    case 'surface':
      return `surface of the scan, voxel ${Number(op.voxel.toPrecision(3))}`
    case 'rebuild':
      return `skin rebuilt, voxel ${mm(op.voxel)}`
    case 'repair':
      return 'light repair'
    case 'calibrate':
      return `calibrated to ${mm(op.distance)}`
    case 'smooth':
      return `smoothed, ${op.passes} passes`
    case 'simplify':
      return `down to ${op.faces.toLocaleString()} faces`
    case 'pose':
      return `posed, ${op.joints.length} joints`
    case 'place':
      return op.mirror ? 'mirrored and placed' : 'placed'
    case 'scale':
      return `scaled by ${Number(op.factor.toFixed(4))}`
    case 'thicken':
      return `thickened by ${mm(op.by)}`
    case 'join':
      return {
        union: 'joined with another part',
        subtract: 'another part taken off',
        blend: `blended into another part, fillet ${mm(op.fillet)}`,
        relieve: `relieved by ${mm(op.clearance)}`,
      }[op.mode]
    case 'cut':
      return op.line.length > 0 ? 'cut along a line' : 'cut by a plane'
    case 'fix':
      return op.fixings.map((f) => `${f.shape} ${f.role}, ${mm(f.width)}`).join('; ')
    case 'channel':
      return `channel for a light, ${mm(op.diameter)}`
    case 'bay':
      return `battery bay, ${Number(op.width.toFixed(1))} × ${Number(op.depth.toFixed(1))} × ${mm(op.height)}`
    case 'focal':
      return 'focal areas marked'
    case 'plug':
      return `a plug for a ${op.diameter} mm hole`
    case 'guide':
      return `a guide for a drill of ${mm(op.bore)}`
    case 'hollow':
      return `hollowed, wall ${mm(op.wall)}`
    case 'drill':
      return `${op.holes.length} holes drilled`
    case 'orient':
      return 'stood up'
    case 'support':
      return 'supported'
  }
}
