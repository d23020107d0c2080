import * as THREE from 'three'
import { LineMaterial } from 'three/addons/lines/LineMaterial.js'
import { LineSegments2 } from 'three/addons/lines/LineSegments2.js'
import { LineSegmentsGeometry } from 'three/addons/lines/LineSegmentsGeometry.js'
import type { Mesh } from '../../core/mesh/mesh'

export interface Marker {
  point: [number, number, number]
  kind: 'problem' | 'warning' | 'note' | 'hole' | 'tip' | 'hand'
  radius?: number
  /** drawn over the skin, for what lies inside it */
  over?: boolean
}
const MARKER_COLOURS = {
  problem: 0xb3361f,
  warning: 0xc07c00,
  note: 0x37588a,
  hole: 0x0e5a61,
  tip: 0x5d7f50,
  hand: 0x7a3f8a,
}
/** A line over the sculpt; fewer than two points are none. */
export interface Stroke {
  points: readonly (readonly [number, number, number])[]
  closed: boolean
  /** straight from point to point */
  sharp?: boolean
}

/** Lines on the skin of one meaning. */
export interface Guide {
  colour: number
  /** 3 per point, mm; each line by itself */
  lines: readonly { points: Float32Array; closed: boolean }[]
}

function straight(places: readonly THREE.Vector3[]): THREE.CurvePath<THREE.Vector3> {
  const path = new THREE.CurvePath<THREE.Vector3>()
  places.slice(1).forEach((p, i) => path.add(new THREE.LineCurve3(places[i], p)))
  return path
}

/** What is written onto the sculpt: places, a cutting plane, a line. */
export class Annotations {
  /** moves with the part at work */
  readonly onBody = new THREE.Group()
  readonly fixed = new THREE.Group()
  private readonly markers = new THREE.Group()
  private readonly sheet = new THREE.Group()
  private readonly stroke = new THREE.Group()
  private readonly liquid = new THREE.Group()
  private readonly lines = new THREE.Group()

  constructor() {
    this.onBody.add(this.markers, this.liquid, this.lines)
    this.fixed.add(this.sheet, this.stroke)
  }

  /** @param unit mm, radius of a mark that has none of its own */
  mark(list: readonly Marker[], unit: number): void {
    empty(this.markers)
    const ball = new THREE.SphereGeometry(1, 12, 8)
    for (const kind of Object.keys(MARKER_COLOURS) as Marker['kind'][])
      for (const over of [false, true]) {
        const of = list.filter((m) => m.kind === kind && (m.over ?? false) === over)
        if (of.length === 0) continue
        const material = new THREE.MeshBasicMaterial({ color: MARKER_COLOURS[kind], depthTest: !over })
        const dots = new THREE.InstancedMesh(ball, material, of.length)
        dots.renderOrder = over ? 1 : 0
        const m = new THREE.Matrix4()
        of.forEach((o, i) => {
          const s = o.radius ?? unit
          dots.setMatrixAt(i, m.makeScale(s, s, s).setPosition(...o.point))
        })
        this.markers.add(dots)
      }
  }

  /** Resin in the part, amber and nearly clear; null takes it away. */
  pour(body: Mesh | null): void {
    empty(this.liquid)
    if (!body || body.triangles.length === 0) return
    const geometry = new THREE.BufferGeometry()
    geometry.setAttribute('position', new THREE.BufferAttribute(body.positions, 3))
    geometry.setIndex(new THREE.BufferAttribute(body.triangles, 1))
    geometry.computeVertexNormals()
    this.liquid.add(
      new THREE.Mesh(
        geometry,
        new THREE.MeshStandardMaterial({
          color: 0xd08a1c,
          roughness: 0.25,
          transparent: true,
          opacity: 0.82,
          side: THREE.FrontSide,
        }),
      ),
    )
  }

  /** Thin lines on the skin, hidden where the skin is; drawn a hair before it. */
  guides(list: readonly Guide[]): void {
    empty(this.lines)
    for (const { colour, lines } of list) {
      const ends: number[] = []
      for (const { points: p, closed } of lines) {
        const n = p.length / 3
        for (let i = closed ? 0 : 1; i < n; i++)
          for (const k of [(i + n - 1) % n, i]) ends.push(p[3 * k]!, p[3 * k + 1]!, p[3 * k + 2]!)
      }
      const geometry = new LineSegmentsGeometry().setPositions(ends)
      const material = new LineMaterial({ color: colour, linewidth: 2.2 })
      // Nearer to the viewer by a few steps of the depth buffer.
      material.polygonOffset = true
      material.polygonOffsetFactor = -2
      material.polygonOffsetUnits = -8
      this.lines.add(new LineSegments2(geometry, material))
    }
  }

  /** A cutting plane of that radius; null takes it away. */
  plane(plane: { point: readonly number[]; normal: readonly number[] } | null, r: number): void {
    empty(this.sheet)
    if (plane) {
      const sheet = new THREE.Mesh(
        new THREE.CircleGeometry(r, 64),
        new THREE.MeshBasicMaterial({
          color: 0x0e5a61,
          transparent: true,
          opacity: 0.22,
          side: THREE.DoubleSide,
          depthWrite: false,
        }),
      )
      const rim = new THREE.LineSegments(
        new THREE.EdgesGeometry(sheet.geometry),
        new THREE.LineBasicMaterial({ color: 0x0e5a61 }),
      )
      const turn = new THREE.Quaternion().setFromUnitVectors(
        new THREE.Vector3(0, 0, 1),
        new THREE.Vector3(...(plane.normal as [number, number, number])),
      )
      for (const o of [sheet, rim]) {
        o.position.set(...(plane.point as [number, number, number]))
        o.quaternion.copy(turn)
        this.sheet.add(o)
      }
    }
  }

  /** A line over the skin, seen through it where it runs behind; `width` is half its own, mm. */
  line({ points, closed, sharp = false }: Stroke, width: number): void {
    empty(this.stroke)
    if (points.length < 2) return
    const places = points.map((p) => new THREE.Vector3(...p))
    const curve = sharp ? straight(places) : new THREE.CatmullRomCurve3(places, closed, 'centripetal')
    const rope = new THREE.TubeGeometry(curve, Math.min(1200, points.length * (sharp ? 24 : 6)), width, 6, closed)
    for (const [opacity, depthTest] of [
      [1, true],
      [0.25, false],
    ] as const) {
      const mesh = new THREE.Mesh(
        rope,
        new THREE.MeshBasicMaterial({ color: MARKER_COLOURS.hand, transparent: true, opacity, depthTest }),
      )
      mesh.renderOrder = 2
      this.stroke.add(mesh)
    }
  }
}

/** Takes everything out of the group and gives its memory on the graphics card back. */
export function empty(group: THREE.Group): void {
  for (const o of group.children) {
    if (!(o instanceof THREE.Mesh || o instanceof THREE.LineSegments)) continue
    ;(o.geometry as THREE.BufferGeometry).dispose()
    ;(o.material as THREE.Material).dispose()
    if (o instanceof THREE.InstancedMesh) o.dispose()
  }
  group.clear()
}
