import { repairDefaults } from '../defaults/mesh'
import { keepFaces, type Mesh } from './mesh'
import { weldTolerance } from './weld'
import { BOUNDARY, boundaryLoops, edgeStart, NONMANIFOLD, topology } from './topology'
import { faultyFaces } from './health'
import { crumbShells, insideOutShells, shellFacts } from './shellFacts'
import { patchHole } from './fillHoles'

export interface RepairOptions {
  /** mm; vertices closer than this become one. 0 leaves them. */
  weld: number
  /** drop shells below 0.1 % of the largest one's volume */
  dropCrumbs: boolean
  /** fill open loops */
  fillHoles: boolean
}

/** What a repair changed, in the order in which it was done. All zero means that the input came back as it was. */
export interface RepairReport {
  welded: number
  degenerate: number
  duplicate: number
  nonManifoldFaces: number
  turned: number
  crumbs: number
  holesFilled: number
  patchFaces: number
}

/**
 * Light repair (topology only; methods.md 1): weld, drop faulty faces, orient, drop crumbs, fill holes.
 * Clean input comes back as the very same object. Never fails; what it could not mend shows in `health`.
 */
export function repair(input: Mesh, options: RepairOptions = repairDefaults): { mesh: Mesh; report: RepairReport } {
  const report: RepairReport = {
    welded: 0,
    degenerate: 0,
    duplicate: 0,
    nonManifoldFaces: 0,
    turned: 0,
    crumbs: 0,
    holesFilled: 0,
    patchFaces: 0,
  }
  let mesh = input
  // Welding could merge what is meant to be apart in a clean mesh, so it only runs where there is something to close.
  if (options.weld > 0 && topology(mesh).openEdges > 0) {
    const r = weldTolerance(mesh, options.weld)
    mesh = r.mesh
    report.welded = r.merged
  }
  // Dropping faces can bare new faults (a doubled patch leaves rims), so the cheap passes run until quiet.
  for (let pass = 0; pass < 3; pass++) {
    const before = mesh
    mesh = dropFaulty(mesh, report)
    mesh = openNonManifold(mesh, report)
    if (mesh === before) break
  }
  mesh = orient(mesh, report)
  if (options.dropCrumbs) mesh = dropCrumbs(mesh, report)
  // A patch can lie on a face that stood in the hole's rim; taking both away and filling again settles it.
  for (let round = 0; options.fillHoles && round < 4; round++) {
    const before = mesh
    mesh = openNonManifold(dropFaulty(closeHoles(mesh, report), report), report)
    if (mesh === before || (topology(mesh).openEdges === 0 && round > 0)) break
  }
  mesh = turnShells(mesh, report)
  return { mesh, report }
}

function dropFaulty(mesh: Mesh, report: RepairReport): Mesh {
  const { degenerate, duplicate } = faultyFaces(mesh)
  if (degenerate.length + duplicate.length === 0) return mesh
  report.degenerate += degenerate.length
  report.duplicate += duplicate.length
  const keep = new Uint8Array(mesh.triangles.length / 3).fill(1)
  for (const f of degenerate) keep[f] = 0
  for (const f of duplicate) keep[f] = 0
  return keepFaces(mesh, keep)
}

/** Removes the faces at edges that more than two faces share; the holes this leaves are filled later. */
function openNonManifold(mesh: Mesh, report: RepairReport): Mesh {
  const { twin, nonManifoldEdges } = topology(mesh)
  if (nonManifoldEdges === 0) return mesh
  const keep = new Uint8Array(mesh.triangles.length / 3).fill(1)
  for (let h = 0; h < twin.length; h++) if (twin[h] === NONMANIFOLD) keep[(h / 3) | 0] = 0
  for (const k of keep) if (!k) report.nonManifoldFaces++
  return keepFaces(mesh, keep)
}

/** Turns faces so that neighbours agree; within each patch the smaller side is the one that turns. */
function orient(mesh: Mesh, report: RepairReport): Mesh {
  const topo = topology(mesh)
  if (topo.disorientedEdges === 0) return mesh
  const t = mesh.triangles
  const faces = t.length / 3
  const flip = new Uint8Array(faces),
    seen = new Uint8Array(faces)
  for (let seed = 0; seed < faces; seed++) {
    if (seen[seed]) continue
    const members = [seed]
    seen[seed] = 1
    let flipped = 0
    for (let i = 0; i < members.length; i++) {
      const f = members[i]!
      for (let k = 0; k < 3; k++) {
        const h = f * 3 + k
        const g = topo.mate[h]!
        if (g < 0) continue
        const neighbour = (g / 3) | 0
        if (seen[neighbour]) continue
        seen[neighbour] = 1
        const same = edgeStart(t, g) === edgeStart(t, h)
        flip[neighbour] = same ? 1 - flip[f]! : flip[f]!
        flipped += flip[neighbour]!
        members.push(neighbour)
      }
    }
    if (flipped * 2 > members.length) for (const f of members) flip[f] = 1 - flip[f]!
  }
  const triangles = t.slice()
  for (let f = 0; f < faces; f++) {
    if (!flip[f]) continue
    report.turned++
    triangles[f * 3 + 1] = t[f * 3 + 2]!
    triangles[f * 3 + 2] = t[f * 3 + 1]!
  }
  return { positions: mesh.positions, triangles }
}

function dropCrumbs(mesh: Mesh, report: RepairReport): Mesh {
  const facts = shellFacts(mesh)
  const drop = crumbShells(facts)
  report.crumbs = drop.reduce((n, d) => n + d, 0)
  if (report.crumbs === 0) return mesh
  return keepFaces(
    mesh,
    Uint8Array.from(facts.shellOf, (s) => 1 - drop[s]!),
  )
}

function closeHoles(mesh: Mesh, report: RepairReport): Mesh {
  let current = mesh
  // A patch across a branching rim can itself leave a small rim; two rounds settle what can be settled.
  for (let round = 0; round < 2; round++) {
    const { twin, openEdges } = topology(current)
    if (openEdges === 0) break
    const patches: number[] = []
    for (const loop of boundaryLoops(current, twin)) {
      const patch = patchHole(current.positions, loop)
      patches.push(...patch)
      report.holesFilled++
      report.patchFaces += patch.length / 3
    }
    if (patches.length === 0) break
    const triangles = new Uint32Array(current.triangles.length + patches.length)
    triangles.set(current.triangles)
    triangles.set(patches, current.triangles.length)
    current = { positions: current.positions, triangles }
  }
  return current
}

/** Turns closed shells that face inward though no larger shell encloses them. */
function turnShells(mesh: Mesh, report: RepairReport): Mesh {
  const facts = shellFacts(mesh)
  const { shellOf } = facts
  const turn = insideOutShells(facts)
  if (!turn.includes(1)) return mesh
  const t = mesh.triangles
  const { twin } = topology(mesh)
  const open = new Set<number>()
  for (let h = 0; h < twin.length; h++) if (twin[h] === BOUNDARY) open.add(shellOf[(h / 3) | 0]!)
  const triangles = t.slice()
  for (let f = 0; f < shellOf.length; f++) {
    const s = shellOf[f]!
    if (!turn[s] || open.has(s)) continue
    report.turned++
    triangles[f * 3 + 1] = t[f * 3 + 2]!
    triangles[f * 3 + 2] = t[f * 3 + 1]!
  }
  return { positions: mesh.positions, triangles }
}
