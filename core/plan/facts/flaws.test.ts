import { describe, expect, it } from 'vitest'
import { apply3, fromQuaternion, type Vector3 } from '../../math/vectors'
import { flawCauses as flawCausesOf } from '../../findings/openFlaws'
import { causeOf, learnedFrom, remedyFor as remedyForOf, tipsOnSkin } from './flaws'
import { inWords, spokenBy } from '../../testSpoken'

const flawCauses = inWords(flawCausesOf)
const remedyFor = spokenBy(remedyForOf)

describe('flaws', () => {
  it('lie where tips stood, however the part was stood in the printer', () => {
    // A place on the part, turned, set down and lifted by its supports as the printer has it.
    const quaternion = [0.18, -0.36, 0.54, Math.sqrt(1 - 0.18 ** 2 - 0.36 ** 2 - 0.54 ** 2)] as const
    const offset: Vector3 = [3, -4, 25],
      shift: Vector3 = [0, 0.5, 6],
      place: Vector3 = [12, 7, 31]
    const point = apply3(fromQuaternion([...quaternion]), place).map(
      (v, k) => v + offset[k]! + shift[k]!,
    ) as unknown as Vector3
    const tips = tipsOnSkin([{ point, tip: 0.8, focal: true }], { quaternion, offset, shift })
    tips[0]!.point.forEach((v, k) => expect(v).toBeCloseTo(place[k]!, 9))
    const near: Vector3 = [place[0] + 1.2, place[1], place[2]],
      far: Vector3 = [place[0] + 4, place[1], place[2]]
    expect(causeOf('pit', near, 0.6, tips)).toEqual({ kind: 'tip', tip: 0.8, focal: true })
    expect(causeOf('pit', far, 0.6, tips)).toBeNull()
    expect(causeOf('scratch', far, 0.6, tips)).toEqual({ kind: 'sanding' })
    // Dust falls where it falls, on a scar as well.
    expect(causeOf('dust', near, 0.6, tips)).toEqual({ kind: 'spray' })
  })
  it('teach when most of a kind have one cause, and are silent about two', () => {
    const tip = { kind: 'tip' as const, tip: 0.8, focal: false }
    const pits = Array.from({ length: 15 }, (_, i) => ({ kind: 'pit' as const, cause: i < 12 ? tip : null }))
    const [learned] = learnedFrom(pits)
    expect(learned).toEqual({ kind: 'pit', cause: tip, count: 12, of: 15, region: null })
    expect(flawCauses([learned!])[0]!.sentence).toContain('12 of 15 pits are scars of tips of 0.8 mm')
    const placed = pits.map((p, i) => ({ ...p, region: i < 9 ? 'Cheek' : 'Coat' }))
    expect(flawCauses(learnedFrom(placed))[0]!.sentence).toContain('0.8 mm, most of them on cheek')
    expect(learnedFrom(pits.slice(10))).toEqual([])
    expect(learnedFrom([...pits.slice(0, 3), ...pits.slice(12), ...pits.slice(12)])).toEqual([])
  })
  it('are mended by what bridges them', () => {
    expect(remedyFor('pit', 0.3).title).toContain('resin')
    expect(remedyFor('pit', 1).title).toContain('Solvent putty')
    expect(remedyFor('pit', 4).title).toContain('UV putty')
    expect(remedyFor('missing', 3).wait).toBe(8 * 3600)
    expect(remedyFor('step', 20).cautions).toContain('spray')
  })
})
