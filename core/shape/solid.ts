import Module, { type Manifold as Solid, type ManifoldToplevel } from 'manifold-3d'
import { bad, good, type Answer } from '../answer'
import type { Mesh } from '../mesh/mesh'
import type { Vector3 } from '../math/vectors'
import { weldExact } from '../mesh/weld'
import { message, type Message } from '../words/message'
import { say } from '../words/say'

/**
 * Booleans by the manifold library: whatever its constructor accepts is a valid solid, and so is every result.
 * Its objects live in WebAssembly memory; each function here frees what it makes.
 */
let loaded: Promise<ManifoldToplevel> | undefined
async function library(): Promise<ManifoldToplevel> {
  loaded ??= Module().then((wasm) => {
    wasm.setup()
    return wasm
  })
  return loaded
}

const REFUSED: Record<string, Message> = {
  NotManifold: message('problems.solid.notClosed'),
  NonFiniteVertex: message('problems.solid.notNumbers'),
}

async function open(mesh: Mesh): Promise<Answer<Solid>> {
  const wasm = await library()
  try {
    const solid = new wasm.Manifold(
      new wasm.Mesh({ numProp: 3, vertProperties: mesh.positions, triVerts: mesh.triangles }),
    )
    const status = solid.status() as unknown as string
    if (status === 'NoError') return good(solid)
    solid.delete()
    return notSolid(status)
  } catch (error) {
    return notSolid(error instanceof Error ? error.message : String(error))
  }
}

function notSolid(status: string): ReturnType<typeof bad> {
  const why =
    Object.entries(REFUSED).find(([k]) => status.replace(/\s/g, '').toLowerCase().includes(k.toLowerCase()))?.[1] ??
    REFUSED.NotManifold
  return bad('not-solid', message('problems.solid.theSculptCannotBeCut', { why }))
}

function close(solid: Solid): Mesh {
  const out = solid.getMesh()
  const mesh: Mesh = { positions: new Float32Array(out.vertProperties), triangles: new Uint32Array(out.triVerts) }
  solid.delete()
  if (out.numProp === 3) return mesh
  // Properties beyond position would be interleaved; only positions are kept.
  const soup = new Float32Array(out.triVerts.length * 3)
  for (let i = 0; i < out.triVerts.length; i++)
    for (let k = 0; k < 3; k++) soup[i * 3 + k] = out.vertProperties[out.triVerts[i]! * out.numProp + k]!
  return weldExact(soup)
}

/** Whether the boolean library accepts the mesh as a valid solid. */
export async function acceptedAsSolid(mesh: Mesh): Promise<boolean> {
  const a = await open(mesh)
  if (a.ok) a.value.delete()
  return a.ok
}

/** `mesh` minus all `tools`. */
export async function subtract(mesh: Mesh, tools: readonly Mesh[]): Promise<Answer<Mesh>> {
  return combine(mesh, tools, (body, all) => body.subtract(all))
}

/** Union of all given bodies. */
export async function unite(meshes: readonly Mesh[]): Promise<Answer<Mesh>> {
  return combine(meshes[0]!, meshes.slice(1), (body, all) => body.add(all))
}

/** What all given bodies have in common; an empty mesh when that is nothing. */
export async function common(meshes: readonly Mesh[]): Promise<Answer<Mesh>> {
  return combine(meshes[0]!, meshes.slice(1), (body, all) => body.intersect(all))
}

/** The part of the solid on the side of the plane to which the normal points; empty when none is there. */
export async function trimmedByPlane(mesh: Mesh, point: Vector3, normal: Vector3): Promise<Answer<Mesh>> {
  const a = await open(mesh)
  if (!a.ok) return a
  const half = a.value.trimByPlane([...normal], normal[0] * point[0] + normal[1] * point[1] + normal[2] * point[2])
  a.value.delete()
  return good(close(half))
}

async function combine(mesh: Mesh, others: readonly Mesh[], act: (a: Solid, b: Solid) => Solid): Promise<Answer<Mesh>> {
  const wasm = await library()
  const opened: Solid[] = []
  try {
    for (const m of [mesh, ...others]) {
      const a = await open(m)
      if (!a.ok) return a
      opened.push(a.value)
    }
    if (opened.length === 1) return good(mesh)
    const all = wasm.Manifold.union(opened.slice(1))
    opened.push(all)
    return good(close(act(opened[0]!, all)))
  } finally {
    for (const s of opened) s.delete()
  }
}

/**
 * Prism over flat outlines (2 per corner, mm; what they wind round is solid) between two heights, and the width of its
 * thinnest strokes: the most that an opening may take before a fiftieth of the area is gone.
 */
export async function extruded(
  contours: readonly Float64Array[],
  from: number,
  to: number,
): Promise<{ mesh: Mesh; area: number; stroke: number }> {
  const wasm = await library()
  const flat = new wasm.CrossSection(
    contours.map((c) => Array.from({ length: c.length / 2 }, (_, i): [number, number] => [c[i * 2]!, c[i * 2 + 1]!])),
    'NonZero',
  )
  try {
    const area = flat.area()
    const opened = (width: number): number => {
      const less = flat.offset(-width / 2, 'Round')
      const back = less.offset(width / 2, 'Round')
      const kept = flat.intersect(back)
      const left = kept.area()
      for (const c of [less, back, kept]) c.delete()
      return left
    }
    let least = 0,
      most = Math.sqrt(area)
    for (let i = 0; i < 16; i++) {
      const width = (least + most) / 2
      if (opened(width) >= 0.98 * area) least = width
      else most = width
    }
    const solid = flat.extrude(to - from)
    const raised = solid.translate([0, 0, from])
    solid.delete()
    return { mesh: close(raised), area, stroke: least }
  } finally {
    flat.delete()
  }
}

/** Section of a solid at height z: area in mm² by the boolean library, as an independent truth for tests. */
export async function sectionAreaOfSolid(mesh: Mesh, z: number): Promise<number> {
  const a = await open(mesh)
  if (!a.ok) throw new Error(say(a.problem.message))
  const section = a.value.slice(z)
  const area = section.area()
  section.delete()
  a.value.delete()
  return area
}
