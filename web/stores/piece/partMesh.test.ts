import { describe, expect, it } from 'vitest'
import type { PartRecord } from '../../../contract/pieces'
import { chainOf, countedStep, failedSteps, isUnasked, meshAfter, meshBefore } from './partMesh'

type Status = 'done' | 'running' | 'failed'
const step = (kind: string, status: Status | null, meshHash: string | null = null): PartRecord['steps'][number] =>
  ({ op: { kind }, derivation: status && { status, meshHash, key: kind } }) as PartRecord['steps'][number]
const part = (...steps: PartRecord['steps']): PartRecord => ({ sculptMesh: 'sculpt', steps }) as unknown as PartRecord
const whole = part(step('scale', 'done', 'scaled'), step('hollow', 'done', 'shell'), step('orient', 'done', 'oriented'))

describe('meshes of a part', () => {
  it('are the last one made before a step, and the one after it', () => {
    expect(meshBefore(whole, 'scale')).toBe('sculpt')
    expect(meshBefore(whole, 'hollow')).toBe('scaled')
    // A kind that is not in the list has its place all the same.
    expect(meshBefore(whole, 'drill')).toBe('shell')
    expect(meshAfter(whole, 'drill')).toBe('shell')
    expect(meshAfter(whole, 'support')).toBe('oriented')
    expect(meshAfter(part(), 'support')).toBe('sculpt')
    expect(meshAfter(null, 'support')).toBeNull()
  })
  it('are not there while a step before them is computed or was never asked for', () => {
    for (const status of ['running', null] as const) {
      const p = part(step('scale', 'done', 'scaled'), step('hollow', status), step('orient', 'done', 'oriented'))
      expect(meshAfter(p, 'scale')).toBe('scaled')
      expect(meshAfter(p, 'hollow')).toBeNull()
      expect(meshAfter(p, 'orient')).toBeNull()
      expect(meshBefore(p, 'hollow')).toBe('scaled')
    }
  })
  it('lead back to the sculpt from any that the steps made, without those that changed nothing', () => {
    expect(chainOf(whole, 'oriented')).toEqual(['oriented', 'shell', 'scaled', 'sculpt'])
    expect(chainOf(whole, 'scaled')).toEqual(['scaled', 'sculpt'])
    expect(chainOf(whole, 'sculpt')).toEqual(['sculpt'])
    const still = part(
      step('scale', 'done', 'scaled'),
      step('focal', 'done', 'scaled'),
      step('orient', 'done', 'oriented'),
    )
    expect(chainOf(still, 'oriented')).toEqual(['oriented', 'scaled', 'sculpt'])
    // Older than the list, or not made yet.
    expect(chainOf(whole, 'gone')).toEqual([])
    expect(chainOf(part(step('scale', 'running')), 'scaled')).toEqual([])
    expect(chainOf(null, 'scaled')).toEqual([])
  })
  it('go on from the last result where a step failed, without what was built on it', () => {
    const p = part(
      step('scale', 'done', 'scaled'),
      step('hollow', 'failed'),
      step('drill', null),
      step('orient', 'done', 'oriented'),
    )
    expect(meshBefore(p, 'hollow')).toBe('scaled')
    expect(meshAfter(p, 'hollow')).toBe('scaled')
    expect(meshAfter(p, 'drill')).toBe('scaled')
    expect(meshAfter(p, 'support')).toBe('oriented')
    expect(chainOf(p, 'oriented')).toEqual(['oriented', 'scaled', 'sculpt'])
    expect(countedStep(p, 'hollow')).toBeNull()
    expect(countedStep(p, 'drill')).toBeNull()
    expect(countedStep(p, 'orient')?.derivation?.meshHash).toBe('oriented')
    expect(failedSteps(p).map((s) => [s.op.kind, s.index])).toEqual([['hollow', 1]])
    // Nobody asks for the holes of a wall that is not there.
    expect(isUnasked(p)).toBe(false)
  })
  it('are none where what makes the body failed', () => {
    const p = part(step('surface', 'failed'), step('repair', null), step('scale', null))
    expect(meshBefore(p, 'surface')).toBe('sculpt')
    expect(meshAfter(p, 'surface')).toBeNull()
    expect(meshAfter(p, 'support')).toBeNull()
    expect(isUnasked(p)).toBe(false)
  })
  it('say whether the next step was never asked for', () => {
    expect(failedSteps(whole)).toEqual([])
    expect(isUnasked(part(step('scale', 'done', 's'), step('hollow', null)))).toBe(true)
    expect(isUnasked(part(step('scale', 'failed'), step('hollow', null)))).toBe(true)
    expect(isUnasked(part(step('scale', 'running'), step('hollow', null)))).toBe(false)
    expect(isUnasked(whole)).toBe(false)
  })
})
