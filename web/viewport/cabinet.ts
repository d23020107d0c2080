import * as THREE from 'three'
import { drawnBySoftware } from './software'

/** Pixels along a side of the room as it is mirrored. Blurring the fine one takes a processor several seconds. */
const FINE = 256,
  COARSE = 64

/** Three's generator makes nothing smaller than what suits a graphics card; this one makes what it is asked for. */
class AnySize extends THREE.PMREMGenerator {
  protected _cubeSize = 0
  _setSize(size: number): void {
    this._cubeSize = size
  }
}

/**
 * What shining paint mirrors: the inside of a display cabinet, with a strip of light along its top, a pale back, and a
 * dim room before its glass. Blurred for every roughness once, for each renderer.
 */
export function cabinet(renderer: THREE.WebGLRenderer): THREE.Texture {
  const inside = new THREE.Scene()
  const wall = (
    colour: number,
    strength: number,
    size: [number, number, number],
    at: [number, number, number],
  ): THREE.Mesh => {
    const m = new THREE.Mesh(
      new THREE.BoxGeometry(...size),
      new THREE.MeshBasicMaterial({ color: new THREE.Color(colour).multiplyScalar(strength) }),
    )
    m.position.set(...at)
    inside.add(m)
    return m
  }
  // Lengths in widths of the cabinet; the sculpt stands at the middle, its front toward −y, z up.
  wall(0xb9ab98, 0.7, [4, 4, 0.1], [0, 0, -1.2])
  wall(0xe9e4da, 0.9, [4, 4, 0.1], [0, 0, 2])
  wall(0xfff4e2, 9, [2.6, 0.5, 0.06], [0, -0.5, 1.9])
  wall(0xe6dfd2, 0.8, [4, 0.1, 4], [0, 1.6, 0.4])
  wall(0xcfd6dc, 0.65, [0.1, 4, 4], [-1.7, 0, 0.4])
  wall(0xcfd6dc, 0.5, [0.1, 4, 4], [1.7, 0, 0.4])
  wall(0x6f675d, 0.5, [4, 0.1, 4], [0, -3, 0.4])
  // A window across the room.
  wall(0xf2f7ff, 2.6, [0.9, 0.06, 1.4], [-1.2, -2.9, 0.9])
  const made = new AnySize(renderer)
  const { texture } = made.fromScene(inside, 0.03, 0.1, 20, { size: drawnBySoftware() ? COARSE : FINE })
  made.dispose()
  for (const m of inside.children as THREE.Mesh[]) {
    m.geometry.dispose()
    ;(m.material as THREE.Material).dispose()
  }
  return texture
}
