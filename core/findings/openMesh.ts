import type { Health } from '../mesh/health'
import { plural, type Finding } from './finding'
import { rule } from './rule'
import type { Fix } from './fix'

/** Defects of the mesh itself, each kind one finding. */
export function openMesh(h: Health): Finding<'repair' | 'scale'>[] {
  const out: Finding<'repair' | 'scale'>[] = []
  const how =
    'Counted on the whole mesh: edges by their faces, crossings by exact predicates on the file’s own coordinates.'
  const mend: Fix<'repair'>[] = [
    {
      act: 'repair',
      label: 'Repair',
      effect: 'welds, orients, fills and removes crumbs; the imported file stays unchanged',
    },
  ]
  const add = (
    id: string,
    count: number,
    level: Finding['level'],
    unit: string,
    sentence: string,
    places: Finding['places'],
    fixes = mend,
  ): void => {
    if (count > 0) out.push({ id, level, value: count.toLocaleString('en'), unit, sentence, places, how, fixes })
  }
  const rim = h.holes.lengths.reduce((a, b) => a + b, 0)
  add(
    'holes',
    h.holes.count,
    'problem',
    h.holes.count === 1 ? 'hole' : 'holes',
    `The surface is open along ${rim.toFixed(1)} mm of edge: a slicer may fill the wrong side.`,
    h.holes.places,
  )
  if (h.holes.count === 0)
    add('open-edges', h.openEdges.count, 'problem', 'open edges', 'Single edges are open.', h.openEdges.places)
  add(
    'non-manifold',
    h.nonManifold.count,
    'problem',
    'edges with more than two faces',
    'More than two faces meet at an edge: inside and outside are undefined there.',
    h.nonManifold.places,
  )
  add(
    'disoriented',
    h.disoriented.count,
    'problem',
    'edges between turned faces',
    'Neighbouring faces disagree about which side is outside.',
    h.disoriented.places,
  )
  add(
    'inside-out',
    h.insideOut.count,
    'problem',
    plural(h.insideOut.count, 'shell').replace(/^\S+ /, ''),
    'A body is inside out: it would print as a hole.',
    h.insideOut.places,
  )
  add(
    'faulty',
    h.degenerate.count + h.duplicate.count,
    'warning',
    'faulty faces',
    `${h.degenerate.count} without area, ${h.duplicate.count} doubled.`,
    [...h.degenerate.places, ...h.duplicate.places],
  )
  add(
    'crossing',
    h.selfIntersecting.count,
    'warning',
    `${h.selfIntersecting.complete ? '' : 'or more '}crossings`,
    'Faces pass through each other. Undercut’s slicer unites them; other programs may not.',
    h.selfIntersecting.places,
    [],
  )
  add(
    'crumbs',
    h.crumbs.count,
    'warning',
    h.crumbs.count === 1 ? 'crumb' : 'crumbs',
    'Loose bits under 0.1 % of the volume would print as scraps in the vat.',
    h.crumbs.places,
  )
  if (h.units !== 'plausible') {
    const factor = h.units === 'looks like metres' ? 1000 : h.units === 'looks like inches' ? 25.4 : 0.001
    out.push({
      id: 'units',
      level: 'problem',
      value: Math.max(...h.size).toPrecision(3),
      unit: 'mm',
      sentence: `The longest side ${h.units}.`,
      places: [],
      how: 'Display pieces are 15 mm to 4 m long; this one is not.',
      fixes: [
        {
          act: 'scale',
          factor,
          label: `Scale by ${factor}`,
          effect: `makes it ${(Math.max(...h.size) * factor).toFixed(0)} mm long`,
        },
      ],
    })
  }
  return out
}

export const meshSound = rule({
  title: 'the mesh is closed, oriented, without crossing faces and crumbs, and of a plausible size',
  stages: ['import'],
  inputs: ['health'],
  find: ({ health }) => openMesh(health),
})
