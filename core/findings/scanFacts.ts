import type { Floor } from '../scan/floor'
import type { ReconstructReport } from '../scan/reconstruct'
import { plural, type Finding } from './finding'
import { rule } from './rule'

/** A cloud that has no skin yet. */
export const withoutSkin = (points: number): Finding<'makeSurface'>[] => [
  {
    id: 'no-skin',
    level: 'problem',
    value: points.toLocaleString('en'),
    unit: 'points',
    sentence: 'This is a scan without a surface. Cut off what is not the object, then make a surface of it.',
    places: [],
    how: 'Counted in the file: it has points but no faces.',
    fixes: [
      { act: 'makeSurface', label: 'Make a surface', effect: 'closed, with the voxel size below; the scan is kept' },
    ],
  },
]

/** The floor that was scanned along with it. */
export const scannedFloor = (floor: Floor): Finding<'cutFloor'>[] => [
  {
    id: 'floor',
    level: 'problem',
    value: `${(floor.share * 100).toFixed(0)} %`,
    unit: 'of it is floor',
    sentence: 'The floor was scanned too and would merge with the feet.',
    places: [floor.point],
    how: `The plane with most points on it and nearly all others on one side; its points scatter by ${floor.scatter.toPrecision(2)} units.`,
    fixes: [
      {
        act: 'cutFloor',
        point: floor.point,
        normal: floor.normal,
        scatter: floor.scatter,
        label: 'Cut off the floor',
        effect: 'everything up to four times its scatter',
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
      value: `${((100 * sum) / area).toFixed(1)} %`,
      unit: 'of the surface is filled in',
      sentence: `In ${plural(report.invented.length, 'place')} there were no points; the surface spans them smoothly.`,
      places: report.invented.slice(0, 12).map((i) => i.point),
      how: 'Connected surface farther than three point spacings from every point of the scan.',
      fixes: [],
    },
  ]
}

export const hasSkin = rule({
  title: 'the scan has a surface',
  stages: ['import'],
  inputs: ['cloudPoints'],
  find: ({ cloudPoints }) => withoutSkin(cloudPoints),
})
export const noFloor = rule({
  title: 'no floor is in the scan',
  stages: ['import'],
  inputs: ['floor'],
  find: ({ floor }) => (floor ? scannedFloor(floor) : []),
})
export const skinWasSeen = rule({
  title: 'the scanner saw the whole surface',
  stages: ['import'],
  inputs: ['reconstruction'],
  find: ({ reconstruction: { report, area } }) => inventedSkin(report, area),
})
