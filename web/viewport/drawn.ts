import * as THREE from 'three'
import type { Mesh } from '../../core/mesh/mesh'
import type { Painted } from '../../core/paint/coats/coating'
import { WHITE_CARD } from './lights'

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
  const sheen = new Float32Array((colours.length / 3) * 2)
  geometry.setAttribute('sheen', new THREE.BufferAttribute(sheen, 2))
  geometry.setAttribute('glow', new THREE.BufferAttribute(new Float32Array(colours.length), 3))
  const body = new THREE.Mesh(geometry, skinMaterial())
  setSheen(body, null)
  return body
}

/** The same body in other colours; it shares what does not differ. */
export function twinOf(body: THREE.Mesh, { colours, sheen, glow }: Painted): THREE.Mesh {
  const geometry = new THREE.BufferGeometry()
  for (const name of ['position', 'normal']) geometry.setAttribute(name, body.geometry.getAttribute(name))
  geometry.setIndex(body.geometry.getIndex())
  geometry.setAttribute('color', new THREE.BufferAttribute(colours, 3))
  geometry.setAttribute('sheen', new THREE.BufferAttribute(sheen.slice(), 2))
  geometry.setAttribute('glow', new THREE.BufferAttribute(glow?.slice() ?? new Float32Array(colours.length), 3))
  return new THREE.Mesh(geometry, skinMaterial())
}

/** of clay, as a sculpt is shown that nobody has painted */
const CLAY_ROUGH = 0.62

/** Roughness and metalness per vertex, or clay's all over. */
export function setSheen(body: THREE.Mesh, sheen: Float32Array | null): void {
  const attribute = body.geometry.getAttribute('sheen') as THREE.BufferAttribute
  const to = attribute.array as Float32Array
  if (sheen && sheen.length === to.length) to.set(sheen)
  else for (let i = 0; i < to.length; i += 2) [to[i], to[i + 1]] = [CLAY_ROUGH, 0]
  attribute.needsUpdate = true
}

/** Light that comes through from behind, per vertex; null where none does. */
export function setGlow(body: THREE.Mesh, glow: Float32Array | null): void {
  const attribute = body.geometry.getAttribute('glow') as THREE.BufferAttribute
  const to = attribute.array as Float32Array
  if (glow && glow.length === to.length) to.set(glow)
  else to.fill(0)
  attribute.needsUpdate = true
}

/** The standard physical material, with its roughness, metalness and glow from the vertices. */
function skinMaterial(): THREE.MeshStandardMaterial {
  const m = new THREE.MeshStandardMaterial({ vertexColors: true, roughness: 1, metalness: 1, side: THREE.DoubleSide })
  m.onBeforeCompile = (shader) => {
    shader.vertexShader = shader.vertexShader
      .replace(
        '#include <common>',
        '#include <common>\nattribute vec2 sheen;\nattribute vec3 glow;\nvarying vec2 vSheen;\nvarying vec3 vGlow;',
      )
      .replace('#include <begin_vertex>', '#include <begin_vertex>\nvSheen = sheen;\nvGlow = glow;')
    shader.fragmentShader = shader.fragmentShader
      .replace('#include <common>', '#include <common>\nvarying vec2 vSheen;\nvarying vec3 vGlow;')
      .replace('#include <roughnessmap_fragment>', 'float roughnessFactor = vSheen.x;')
      .replace('#include <metalnessmap_fragment>', 'float metalnessFactor = vSheen.y;')
      .replace('#include <emissivemap_fragment>', `totalEmissiveRadiance += ${WHITE_CARD.toFixed(4)} * vGlow;`)
  }
  return m
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
