import { text } from '../i18n'
import type { OperationRecord } from '../../contract/operations'

const mm = (v: number): string => text('shell.operationWords.mm', { v: Number(v.toFixed(2)) })

/** An operation as one would say it at the bench. */
export function operationWords(op: OperationRecord): string {
  switch (op.kind) {
    case 'base':
      return text('shell.operationWords.base', {
        width: Number(op.width.toFixed(1)),
        depth: Number(op.depth.toFixed(1)),
        height: mm(op.height),
      })
    case 'nameplate':
      return text('shell.operationWords.nameplate', { split: op.text.split('\n').join(' / ') })
    case 'trim':
      return op.box
        ? text('shell.operationWords.croppedToABox')
        : text('shell.operationWords.trimmedByPlanesPlanes', { planes: op.planes.length })
    case 'surface':
      return text('shell.operationWords.surfaceOfTheScan', { voxel: Number(op.voxel.toPrecision(3)) })
    case 'rebuild':
      return text('shell.operationWords.surfaceRebuiltVoxel', { voxel: mm(op.voxel) })
    case 'repair':
      return text('shell.operationWords.lightRepair')
    case 'calibrate':
      return text('shell.operationWords.calibratedTo', { distance: mm(op.distance) })
    case 'smooth':
      return text('shell.operationWords.smoothedPasses', { passes: op.passes })
    case 'simplify':
      return text('shell.operationWords.reducedToFaces', { faces: op.faces })
    case 'pose':
      return text('shell.operationWords.posedJoints', { joints: op.joints.length })
    case 'place':
      return op.mirror ? text('shell.operationWords.mirroredAndPlaced') : 'placed'
    case 'scale':
      return text('shell.operationWords.scaledBy', { factor: Number(op.factor.toFixed(4)) })
    case 'thicken':
      return text('shell.operationWords.thickenedBy', { by: mm(op.by) })
    case 'join':
      return {
        union: text('shell.operationWords.mergedWithAnotherPart'),
        subtract: text('shell.operationWords.anotherPartSubtracted'),
        blend: text('shell.operationWords.blendedIntoAnotherPart', { fillet: mm(op.fillet) }),
        relieve: text('shell.operationWords.clearanceOfCut', { clearance: mm(op.clearance) }),
      }[op.mode]
    case 'cut':
      return op.line.length > 0 ? text('shell.operationWords.cutAlongALine') : text('shell.operationWords.cutByAPlane')
    case 'fix':
      return op.fixings.map((f) => `${f.shape} ${f.role}, ${mm(f.width)}`).join('; ')
    case 'channel':
      return text('shell.operationWords.channelForALight', { diameter: mm(op.diameter) })
    case 'bay':
      return text('shell.operationWords.batteryBay', {
        width: Number(op.width.toFixed(1)),
        depth: Number(op.depth.toFixed(1)),
        height: mm(op.height),
      })
    case 'focal':
      return text('shell.operationWords.areasToKeepClean')
    case 'plug':
      return text('shell.operationWords.plugForAMm', { diameter: op.diameter })
    case 'guide':
      return text('shell.operationWords.drillingGuide', { bore: mm(op.bore) })
    case 'hollow':
      return text('shell.operationWords.hollowedWall', { wall: mm(op.wall) })
    case 'drill':
      return text('shell.operationWords.holesDrilled', { holes: op.holes.length })
    case 'orient':
      return text('shell.operationWords.oriented')
    case 'support':
      return 'supported'
  }
}
