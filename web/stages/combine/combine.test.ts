// @vitest-environment happy-dom
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { MEASURES, otherPart, PART, PIECE } from '../../stores/fakeServer'
import { usePiece } from '../../stores/piece'
import { useViewport } from '../../viewport/useViewport'
import { button, control, press, settle, shop, StageBench, type } from '../stageTesting'

let page: StageBench
const OTHER = '99999999-9999-4999-8999-999999999999'
const JOINED = { join: { volumeBefore: 9, volumeAfter: 12, overlap: 1 } }
/** A press on the part itself. */
const on = (
  point: [number, number, number],
  normal: [number, number, number] = [0, 0, 1],
  companion: string | null = null,
) => ({
  point,
  normal,
  face: 0,
  companion,
})
const arranged = () =>
  page.bench.arranged as {
    changes: { id: string; operations: Record<string, unknown>[] }[]
    create: { name: string; from: string | null; operations: Record<string, unknown>[] }[]
    remove: string[]
  }
beforeEach(() => {
  page = new StageBench()
  page.bench.checks.set('measures', MEASURES)
  page.bench.others = [otherPart(OTHER, 'plinth')]
  page.bench.replies.set('GET /workshop', shop())
})
afterEach(() => page.end())

describe('joining to another part', () => {
  const open = () => page.on(() => import('./JoinPanel.vue'))
  it('makes one body of both in one step, and the other part goes', async () => {
    page.bench.trials.set('join', JOINED)
    const at = await open()
    await press(at, 'blend')
    await type(at, 'Fillet', '3')
    await press(at, 'Merge')
    expect(arranged()).toMatchObject({
      changes: [{ id: PART, operations: [{ kind: 'join', mode: 'blend', fillet: 3, others: [{ part: OTHER }] }] }],
      remove: [OTHER],
    })
  })
  it('changes nothing where it cannot be done, and says why', async () => {
    const at = await open()
    await press(at, 'Merge')
    expect(page.bench.arranged).toBeNull()
    expect(usePiece().problem).not.toBe('')
    expect(button(at, 'Merge').element.disabled).toBe(false)
  })
  it('keeps the other part where this one only gives way to it, by the workshop’s clearance', async () => {
    page.bench.replies.set(
      'GET /workshop',
      shop({
        clearances: {
          resin: {
            sliding: 0.12,
            press: 0.02,
            print: { peg: { drawn: 10, measured: 10.1 }, hole: { drawn: 10, measured: 10 } },
          },
          filament: { sliding: 0.3, press: 0.1, print: null },
        },
      }),
    )
    page.bench.trials.set('join', JOINED)
    const at = await open()
    await press(at, 'cut clearance')
    // Drawn wider by what the machine closes: a peg that comes 0.1 mm too thick takes half of it a side.
    expect(control(at, 'Clearance, per side').element.value).toBe('0.17')
    expect(at.text()).toContain('by your fit print')
    await press(at, 'Cut clearance')
    expect(page.bench.operations).toMatchObject([{ kind: 'join', mode: 'relieve', clearance: 0.17 }])
    expect(page.bench.others).toHaveLength(1)
  })
  it('has the clearance of the coarser process of the two', async () => {
    page.bench.fields = { materials: { [OTHER]: { name: 'filament', density: 1.24, infill: 0.2, cast: null } } }
    const at = await open()
    await press(at, 'key')
    expect(at.text()).toContain('filament, sliding, default')
    await press(at, 'wire pin')
    expect(at.text()).toContain('filament, press, default')
  })
  it('sets a pin where it is pressed, in both or in none', async () => {
    page.bench.trials.set('fix', { fix: { walls: [2] } })
    const at = await open()
    await press(at, 'wire pin')
    await type(at, 'Wire', '1.2')
    await press(at, 'Choose the place')
    expect(useViewport().scene.mode).toBe('pick')
    // What was pressed on the other part is not asked.
    useViewport().scene.onPick!(on([9, 9, 9], [0, 0, 1], 'plinth-sculpt'))
    useViewport().scene.onPick!(on([1, 2, 3]))
    await settle()
    expect(arranged().changes).toMatchObject([
      {
        id: PART,
        operations: [{ kind: 'fix', fixings: [{ shape: 'pin', role: 'plug', point: [1, 2, 3], width: 1.2 }] }],
      },
      { id: OTHER, operations: [{ kind: 'fix', fixings: [{ shape: 'pin', role: 'socket', point: [1, 2, 3] }] }] },
    ])
    expect(useViewport().scene.mode).not.toBe('pick')
    page.bench.arranged = null
    page.bench.failing.set('fix', 'The wall is too thin.')
    await press(at, 'Choose the place')
    useViewport().scene.onPick!(on([1, 2, 3]))
    await settle()
    expect(page.bench.arranged).toBeNull()
    expect(usePiece().problem).toBe('The wall is too thin.')
  })
})

describe('placing a part', () => {
  const open = () => page.on(() => import('./PlacePanel.vue'))
  it('moves it by what a typed number differs from where it stands', async () => {
    const at = await open()
    expect(control(at, 'Right of the middle').element.value).toBe('5')
    await type(at, 'Right of the middle', '12.5')
    expect(arranged().changes[0]!.operations).toMatchObject([{ kind: 'place', shift: [7.5, 0, 0] }])
  })
  it('takes two presses for face to face: the first on this part, the second on another', async () => {
    const at = await open()
    await press(at, 'Face to face')
    useViewport().scene.onPick!(on([4, 4, 4], [0, 0, 1], 'plinth-sculpt'))
    await settle()
    // The other part’s place comes second.
    expect(page.bench.arranged).toBeNull()
    useViewport().scene.onPick!(on([5, 5, 20], [0, 0, 1]))
    await settle()
    expect(useViewport().scene.hint).toContain('on the other part')
    expect(useViewport().scene.markers).toMatchObject([{ point: [5, 5, 20] }])
    useViewport().scene.onPick!(on([30, 0, 2], [0, 0, -1], 'plinth-sculpt'))
    await settle()
    expect(arranged().changes[0]!.operations).toMatchObject([{ kind: 'place', shift: [25, -5, -18] }])
    expect(useViewport().scene.mode).not.toBe('pick')
  })
  it('is moved by hand and told when it is let go, and not for a hand that did not move it', async () => {
    const at = await open()
    await press(at, 'Move by hand')
    const { onMove } = useViewport().scene
    onMove!({ quaternion: [0, 0, 0, 1], shift: [0, 0, 0] }, true)
    await settle()
    expect(page.bench.arranged).toBeNull()
    onMove!({ quaternion: [0, 0, 0, 1], shift: [3, 0, 0] }, false)
    await settle()
    expect(page.bench.arranged).toBeNull()
    expect(useViewport().scene.motion).toMatchObject({ shift: [3, 0, 0] })
    onMove!({ quaternion: [0, 0, 0, 1], shift: [4, 0, 0] }, true)
    await settle()
    expect(arranged().changes[0]!.operations).toMatchObject([{ shift: [4, 0, 0] }])
    expect(useViewport().scene.motion).toMatchObject({ shift: [0, 0, 0] })
    await press(at, 'Done moving')
  })
  it('groups it with others and lets go of them, leaving no group of one', async () => {
    const at = await open()
    await press(at, 'Move together with plinth')
    expect(page.bench.fields.groups).toEqual({ [PART]: PART, [OTHER]: PART })
    expect(button(at, 'Move together with plinth').attributes('aria-pressed')).toBe('true')
    await press(at, 'Move together with plinth')
    expect(page.bench.fields.groups).toEqual({})
  })
})

describe('a base', () => {
  const open = () => page.on(() => import('./BasePanel.vue'))
  it('is proposed as wide as the whole needs to be tipped by the wished angle, and says so', async () => {
    page.bench.checks.set('balance', {
      mass: 58,
      centre: [5, 1, 30],
      support: [
        [4, 4],
        [6, 4],
        [6, 6],
        [4, 6],
      ],
      tips: [],
      weakest: { direction: 0, margin: -3.5, angle: -6.7 },
      energy: 0,
      remedy: null,
    })
    const at = await open()
    // 4 mm beside the middle of a foot of 2 mm, 30 mm over the table and 8 of base: 2 (4 + 38 tan 15°).
    await vi.waitFor(() => expect(control(at, /^Width/).element.value).toBe('28.4'))
    expect(control(at, /^Depth/).element.value).toBe('28.4')
    expect(at.text()).toContain('so that it stands up to a tilt of 15°')
  })
  it('is proposed wider than what stands on it, and goes under it without moving it', async () => {
    page.bench.replies.set(`POST /pieces/${PIECE}/arrange`, { created: [OTHER] })
    const at = await open()
    expect(control(at, /^Width/).element.value).toBe('11.5')
    await press(at, 'Slab')
    expect(control(at, 'Height').element.value).toBe('12')
    await press(at, 'Add base')
    const sent = page.bench.sent.find((s) => s.call === `POST /pieces/${PIECE}/arrange`)!.body as ReturnType<
      typeof arranged
    >
    expect(sent.create).toMatchObject([
      {
        name: 'Slab',
        from: null,
        operations: [
          { kind: 'base', outline: 'rounded', side: 'plain', width: 11.5, height: 12, profile: [] },
          { kind: 'place', shift: [5, 5, -12] },
        ],
      },
    ])
    // It is the base that is worked on next.
    expect(usePiece().part!.name).toBe('plinth')
  })
  it('shows what it is, and is changed without losing what was set before', async () => {
    page.bench.operations = [
      {
        kind: 'base',
        outline: 'rounded',
        side: 'stepped',
        width: 40,
        depth: 30,
        height: 20,
        steps: 3,
        top: 'cobbles',
        relief: 2,
        seed: 7,
      },
    ]
    page.bench.trials.set('base', {})
    const at = await open()
    expect(button(at, 'Stepped plinth').classes()).toContain('btn-primary')
    expect(control(at, 'Steps').element.value).toBe('3')
    await at.find('#base-top').setValue('planks')
    await press(at, 'Change this base')
    expect(page.bench.operations).toMatchObject([
      { kind: 'base', side: 'stepped', width: 40, depth: 30, steps: 3, top: 'planks', relief: 2, seed: 7 },
    ])
  })
  it('has a turned profile that follows the pointer, and is as before when the pointer is cancelled', async () => {
    const at = await open()
    await press(at, 'Turned socle')
    const svg = at.find('svg.profile')
    svg.element.getBoundingClientRect = () => ({ left: 0, top: 0, width: 100, height: 60 }) as DOMRect
    const profile = (): string => svg.find('polyline').attributes('points')!
    const before = profile()
    const pointer = (name: string, x: number, y: number, more: object = {}) =>
      svg.trigger(name, { pointerId: 1, button: 0, isPrimary: true, clientX: x, clientY: y, ...more })
    const [, second] = svg
      .findAll('circle')
      .map((c) => [Number(c.attributes('cx')), Number(c.attributes('cy'))] as const)
    // The right button is not the drag’s.
    await pointer('pointerdown', second![0], second![1], { button: 2 })
    await pointer('pointermove', second![0] + 4, second![1])
    expect(profile()).toBe(before)
    await pointer('pointerdown', second![0], second![1])
    await pointer('pointermove', second![0] - 6, second![1])
    expect(profile()).not.toBe(before)
    await pointer('pointercancel', 0, 0)
    expect(profile()).toBe(before)
    await pointer('pointerdown', second![0], second![1])
    await pointer('pointermove', second![0] - 6, second![1])
    await pointer('pointerup', second![0] - 6, second![1])
    const after = profile()
    expect(after).not.toBe(before)
    await pointer('pointermove', second![0] + 9, second![1])
    expect(profile()).toBe(after)
  })
})
