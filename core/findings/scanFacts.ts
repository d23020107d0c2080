import type { Floor } from '../scan/floor'
import type { ReconstructReport } from '../scan/reconstruct'
import type { Finding } from './finding'
import { rule } from './rule'
import { fixed } from '../words/format'
import { message } from '../words/message'

/** A cloud that has no skin yet. */
export const withoutSkin = (points: number): Finding<'makeSurface'>[] => [
  {
    id: 'no-skin',
    level: 'problem',
    value: points,
    unit: message('findings.scanFacts.points'),
    sentence: message('findings.scanFacts.thisIsAScanWithout'),
    places: [],
    how: message('findings.scanFacts.countedInTheFileIt'),
    fixes: [
      {
        act: 'makeSurface',
        label: message('findings.scanFacts.makeASurface'),
        effect: message('findings.scanFacts.closedWithTheVoxelSize'),
      },
    ],
  },
]

/** The floor that was scanned along with it. */
export const scannedFloor = (floor: Floor): Finding<'cutFloor'>[] => [
  {
    id: 'floor',
    level: 'problem',
    value: message('findings.scanFacts.percent', { n: fixed(floor.share * 100, 0) }),
    unit: message('findings.scanFacts.ofItIsFloor'),
    sentence: message('findings.scanFacts.theFloorWasScannedToo'),
    places: [floor.point],
    how: message('findings.scanFacts.thePlaneWithMostPoints', { scatter: floor.scatter.toPrecision(2) }),
    fixes: [
      {
        act: 'cutFloor',
        point: floor.point,
        normal: floor.normal,
        scatter: floor.scatter,
        label: message('findings.scanFacts.cutOffTheFloor'),
        effect: message('findings.scanFacts.everythingUpToFourTimes'),
      },
    ],
  },
]

/** Skin that the scanner never saw. */
export function inventedSkin(report: ReconstructReport, area: number): Finding<never>[] {
  const sum = report.invented.reduce((s, i) => s + i.area, 0)
  if (sum < 0.002 * area) return []
  return [
    {
      id: 'invented',
      level: 'warning',
      value: message('findings.scanFacts.percent', { n: fixed((100 * sum) / area, 1) }),
      unit: message('findings.scanFacts.ofTheSurfaceIsFilled'),
      sentence: message('findings.scanFacts.inPlacePlacesThereWere', { length: report.invented.length }),
      places: report.invented.slice(0, 12).map((i) => i.point),
      how: message('findings.scanFacts.connectedSurfaceFartherThanThree'),
      fixes: [],
    },
  ]
}

export const hasSkin = rule({
  title: message('findings.scanFacts.theScanHasASurface'),
  stages: ['import'],
  inputs: ['cloudPoints'],
  find: ({ cloudPoints }) => withoutSkin(cloudPoints),
})
export const noFloor = rule({
  title: message('findings.scanFacts.noFloorIsInThe'),
  stages: ['import'],
  inputs: ['floor'],
  find: ({ floor }) => (floor ? scannedFloor(floor) : []),
})
export const skinWasSeen = rule({
  title: message('findings.scanFacts.theScannerSawTheWhole'),
  stages: ['import'],
  inputs: ['reconstruction'],
  find: ({ reconstruction: { report, area } }) => inventedSkin(report, area),
})
