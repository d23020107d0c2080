import { unzipSync } from 'fflate'
import { describe, expect, it } from 'vitest'
import { concatenate, keepFaces, reversed, type Mesh } from '../mesh/mesh'
import { identity3 } from '../math/vectors'
import { transformed } from '../mesh/transform'
import { loopsOf } from '../mesh/loops'
import { sectionArea, Sections } from '../mesh/sections'
import { boxBody, chainBody, sphereBody } from '../testBodies'
import { read3mf } from './read3mf'
import { slices3mf, svgStack } from './sliceStack'
import { say } from '../words/say'

const areaOf = (loop: ArrayLike<number>): number => {
  let a = 0
  for (let i = 0; i < loop.length; i += 2) {
    const j = (i + 2) % loop.length
    a += (loop[i]! * loop[j + 1]! - loop[i + 1]! * loop[j]!) / 2
  }
  return a
}
const raised = (mesh: Mesh, by: number): Mesh => transformed(mesh, identity3, [0, 0, by])

describe('layers as outlines', () => {
  it('close in every layer of a clean body, and enclose what its section does', () => {
    for (const mesh of [raised(sphereBody(12, 4), 12), raised(chainBody(7, 7), 40)]) {
      const cuts = new Sections(mesh)
      for (let z = 0.35; z < 70; z += 1.7) {
        const count = cuts.at(z)
        const { loops, open } = loopsOf(cuts.segments, count)
        expect(open).toBe(0)
        expect(loops.reduce((s, l) => s + areaOf(l), 0)).toBeCloseTo(sectionArea(cuts.segments, count), 6)
      }
    }
  })
  it('say how many ways are left open by a torn body', () => {
    const ball = raised(sphereBody(10, 4), 10)
    const torn = keepFaces(
      ball,
      Uint8Array.from({ length: ball.triangles.length / 3 }, (_, f) => (f % 50 === 7 ? 0 : 1)),
    )
    const cuts = new Sections(torn)
    expect(loopsOf(cuts.segments, cuts.at(10.01)).open).toBeGreaterThan(0)
  })
  it('are in the 3MF beside the whole mesh, holes turning the other way', async () => {
    const tube = concatenate([boxBody(20, 20, 10), reversed(boxBody(10, 10, 10, 5, 5, 0))])
    const parts: Uint8Array[] = []
    await slices3mf(tube, 0.5, async (b) => {
      parts.push(b.slice())
    })
    const bytes = Buffer.concat(parts)
    const back = read3mf(new Uint8Array(bytes))
    if (!back.ok) throw new Error(say(back.problem.message))
    expect(back.value[0]!.mesh.triangles).toHaveLength(tube.triangles.length)
    const text = new TextDecoder().decode(unzipSync(new Uint8Array(bytes))['3D/3dmodel.model'])
    const slices = [...text.matchAll(/<s:slice ztop="([\d.]+)">(.*?)<\/s:slice>/g)]
    expect(slices.map((s) => Number(s[1]))).toEqual(Array.from({ length: 20 }, (_, i) => (i + 1) / 2))
    for (const [, , body] of slices) {
      const v = [...body!.matchAll(/<s:vertex x="(.*?)" y="(.*?)"\/>/g)].map((m) => [Number(m[1]), Number(m[2])])
      const areas = [...body!.matchAll(/<s:polygon startv="(\d+)">(.*?)<\/s:polygon>/g)].map((p) => {
        const path = [Number(p[1]), ...[...p[2]!.matchAll(/v2="(\d+)"/g)].map((m) => Number(m[1]))]
        // A polygon comes back to where it began.
        expect(path.at(-1)).toBe(path[0])
        return areaOf(path.slice(0, -1).flatMap((i) => v[i]!))
      })
      expect(areas.sort((a, b) => a - b).map((a) => Math.round(a))).toEqual([-100, 400])
    }
  })
  it('are in the SVG in true size, a group a layer', () => {
    const text = [...svgStack(boxBody(30, 20, 2, -15, -10, 0), 0.25)].join('')
    expect(text).toContain('width="30mm" height="20mm" viewBox="-15 -10 30 20"')
    const groups = [...text.matchAll(/<g id="layer-(\d+)" data-top="(.*?)"><path d="(.*?)"\/><\/g>/g)]
    expect(groups.map((g) => Number(g[2]))).toEqual([0.25, 0.5, 0.75, 1, 1.25, 1.5, 1.75, 2])
    for (const [, , , d] of groups) {
      const points = [...d!.matchAll(/[ML](\S+) ([-\d.]+)/g)].flatMap((m) => [Number(m[1]), Number(m[2])])
      expect(Math.abs(areaOf(points))).toBeCloseTo(600, 3)
    }
  })
})
