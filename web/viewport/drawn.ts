import * as THREE from 'three'
import type { Mesh } from '../../core/mesh/mesh'

const CLAY = new THREE.Color(0xcdc2b0),
  STEM = new THREE.Color(0x8fa3a0)

/** The sculpt's own colours, or clay, with the stems' on what are supports. Linear. */
export function bareColours(mesh: Mesh, bodyFaces: number): Float32Array {
  const colours = new Float32Array(mesh.positions.length)
  const c = new THREE.Color()
  const ofStem = new Uint8Array(mesh.positions.length / 3)
  for (let i = bodyFaces * 3; i < mesh.triangles.length; i++) ofStem[mesh.triangles[i]!] = 1
  const own = mesh.colours
  for (let v = 0; v < ofStem.length; v++)
    (own
      ? c.setRGB(own[v * 3]! / 255, own[v * 3 + 1]! / 255, own[v * 3 + 2]! / 255, THREE.SRGBColorSpace)
      : ofStem[v]
        ? STEM
        : CLAY
    ).toArray(colours, v * 3)
  return colours
}

export function solidOf(mesh: Mesh, colours: Float32Array): THREE.Mesh {
  const geometry = new THREE.BufferGeometry()
  geometry.setAttribute('position', new THREE.BufferAttribute(mesh.positions, 3))
  geometry.setIndex(new THREE.BufferAttribute(mesh.triangles, 1))
  geometry.computeVertexNormals()
  geometry.setAttribute('color', new THREE.BufferAttribute(colours, 3))
  return new THREE.Mesh(
    geometry,
    new THREE.MeshStandardMaterial({ vertexColors: true, roughness: 0.62, metalness: 0, side: THREE.DoubleSide }),
  )
}

/** Points have no faces to catch light: each is shaded by its normal, lit from the upper left as the sculpts are. */
function litPoints(normals: Float32Array, colours: Float32Array): Float32Array {
  const out = new Float32Array(colours.length)
  for (let i = 0; i < out.length; i += 3) {
    const light = -0.5 * normals[i]! - 0.58 * normals[i + 1]! + 0.64 * normals[i + 2]!
    const k = 0.28 + 0.8 * Math.max(0, light)
    for (let a = 0; a < 3; a++) out[i + a] = colours[i + a]! * k
  }
  return out
}

/** A scan's points, two pixels large. */
export function pointsOf(mesh: Mesh, colours: Float32Array): THREE.Points {
  const geometry = new THREE.BufferGeometry()
  geometry.setAttribute('position', new THREE.BufferAttribute(mesh.positions, 3))
  geometry.setAttribute(
    'color',
    new THREE.BufferAttribute(mesh.normals ? litPoints(mesh.normals, colours) : colours, 3),
  )
  return new THREE.Points(geometry, new THREE.PointsMaterial({ vertexColors: true, size: 2, sizeAttenuation: false }))
}
