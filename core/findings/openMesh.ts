import type { Health } from '../mesh/health'
import type { Finding } from './finding'
import { rule } from './rule'
import type { Fix } from './fix'
import { fixed } from '../words/format'
import { message } from '../words/message'
import type { Said } from '../words/say'

/** Defects of the mesh itself, each kind one finding. */
export function openMesh(h: Health): Finding<'repair' | 'scale'>[] {
  const out: Finding<'repair' | 'scale'>[] = []
  const how = message('findings.openMesh.countedOnTheWholeMesh')
  const mend: Fix<'repair'>[] = [
    {
      act: 'repair',
      label: message('findings.openMesh.repair'),
      effect: message('findings.openMesh.weldsOrientsFillsAndRemoves'),
    },
  ]
  const add = (
    id: string,
    count: number,
    level: Finding['level'],
    unit: (n: number) => Said,
    sentence: Said,
    places: Finding['places'],
    fixes = mend,
  ): void => {
    if (count > 0) out.push({ id, level, value: count, unit: unit(count), sentence, places, how, fixes })
  }
  const rim = h.holes.lengths.reduce((a, b) => a + b, 0)
  add(
    'holes',
    h.holes.count,
    'problem',
    (n) => message('findings.openMesh.holes', { n }),
    message('findings.openMesh.theSurfaceIsOpenAlong', { rim: fixed(rim, 1) }),
    h.holes.places,
  )
  if (h.holes.count === 0)
    add(
      'open-edges',
      h.openEdges.count,
      'problem',
      (n) => message('findings.openMesh.openEdges', { n }),
      message('findings.openMesh.singleEdgesAreOpen'),
      h.openEdges.places,
    )
  add(
    'non-manifold',
    h.nonManifold.count,
    'problem',
    (n) => message('findings.openMesh.manyFacedEdges', { n }),
    message('findings.openMesh.moreThanTwoFacesMeet'),
    h.nonManifold.places,
  )
  add(
    'disoriented',
    h.disoriented.count,
    'problem',
    (n) => message('findings.openMesh.disorientedEdges', { n }),
    message('findings.openMesh.neighbouringFacesDisagreeAboutWhich'),
    h.disoriented.places,
  )
  add(
    'inside-out',
    h.insideOut.count,
    'problem',
    (n) => message('findings.openMesh.shells', { n }),
    message('findings.openMesh.aBodyIsInsideOut'),
    h.insideOut.places,
  )
  add(
    'faulty',
    h.degenerate.count + h.duplicate.count,
    'warning',
    (n) => message('findings.openMesh.faultyFaces', { n }),
    message('findings.openMesh.withoutAreaDoubled', { count: h.degenerate.count, count2: h.duplicate.count }),
    [...h.degenerate.places, ...h.duplicate.places],
  )
  add(
    'crossing',
    h.selfIntersecting.count,
    'warning',
    (n) => message('findings.openMesh.orMoreCrossings', { n, complete: h.selfIntersecting.complete }),
    message('findings.openMesh.facesPassThroughEachOther'),
    h.selfIntersecting.places,
    [],
  )
  add(
    'crumbs',
    h.crumbs.count,
    'warning',
    (n) => message('findings.openMesh.crumbs', { n }),
    message('findings.openMesh.looseBitsUnder01'),
    h.crumbs.places,
  )
  if (h.units !== 'plausible') {
    const units = h.units === 'looks like metres' ? 'metres' : h.units === 'looks like inches' ? 'inches' : 'other'
    const factor = { metres: 1000, inches: 25.4, other: 0.001 }[units]
    out.push({
      id: 'units',
      level: 'problem',
      value: Number(Math.max(...h.size).toPrecision(3)),
      unit: message('findings.openMesh.mmLong'),
      sentence: message('findings.openMesh.looksLike', { units }),
      places: [],
      how: message('findings.openMesh.displayPiecesAre15Mm'),
      fixes: [
        {
          act: 'scale',
          factor,
          label: message('findings.openMesh.scaleBy', { factor }),
          effect: message('findings.openMesh.makesItMmLong', { n: fixed(Math.max(...h.size) * factor, 0) }),
        },
      ],
    })
  }
  return out
}

export const meshSound = rule({
  title: message('findings.openMesh.theMeshIsClosedOriented'),
  stages: ['import'],
  inputs: ['health'],
  find: ({ health }) => openMesh(health),
})
