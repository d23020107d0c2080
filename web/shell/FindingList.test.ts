// @vitest-environment happy-dom
import { mount } from '@vue/test-utils'
import { describe, expect, it, vi } from 'vitest'
import type { Finding } from '../../core/findings/finding'
import type { RuleState } from '../../core/findings/judge'
import FindingList from './FindingList.vue'
import { doFix } from './fixHandlers'

const island: Finding<'support' | 'reorient'> = {
  id: 'islands',
  level: 'problem',
  value: '3',
  unit: 'islands',
  sentence: '3 regions start in mid air.',
  places: [
    [0, 0, 1],
    [2, 0, 4],
  ],
  how: 'Regions of each layer.',
  fixes: [
    { act: 'support', closer: true, label: 'Generate closer supports', effect: 'puts a tip under every island' },
    { act: 'reorient', label: 'Turn it', effect: 'another orientation' },
  ],
}
const measured = (title: string): RuleState => ({ title, state: 'measured' })
function shown(findings: Finding<'support' | 'reorient'>[], rules: RuleState[], printer = true) {
  const support = vi.fn(),
    reorient = vi.fn()
  const fixes = {
    support,
    reorient: { run: reorient, unless: () => (printer ? null : 'The search needs a printer.') },
  }
  const list = mount(
    FindingList as never,
    {
      props: { judged: { findings, rules }, checked: 'Every island has a tip.', fixes },
    } as never,
  )
  return { list, support, reorient, fixes }
}

describe('the list of findings', () => {
  it('says that no problems were found only when every rule that concerns the piece was measured', () => {
    const some: RuleState[] = [measured('a'), { title: 'b', state: 'not applicable' }]
    expect(shown([], some).list.text()).toContain('No problems found')
    expect(shown([], some).list.text()).toContain('Every island has a tip.')
    for (const open of [
      { title: 'it fits', state: 'waiting', for: ['a printer'] },
      { title: 'it fits', state: 'measuring' },
      { title: 'it fits', state: 'failed', sentence: 'Too fine.' },
    ] as RuleState[]) {
      const text = shown([], [...some, open]).list.text()
      expect(text).not.toContain('No problems found')
      expect(text).not.toContain('Every island has a tip.')
      expect(text).toContain('1 of 2')
    }
    expect(shown([], []).list.text()).toBe('')
    expect(shown([], [{ title: 'b', state: 'not applicable' }]).list.text()).toBe('')
  })
  it('says what was checked by what was measured, and nothing of what does not concern the piece', () => {
    const list = mount(
      FindingList as never,
      {
        props: {
          judged: {
            findings: [],
            rules: [
              measured('it fits the printer'),
              { title: 'no seam gapes', state: 'not applicable' },
              measured('it stands'),
            ],
          },
          fixes: {},
        },
      } as never,
    )
    expect(list.text()).toContain('Checked: it fits the printer; it stands.')
    expect(list.text()).not.toContain('seam')
  })
  it('names what was not checked and why, each reason once', () => {
    const { list } = shown(
      [],
      [
        { title: 'it fits', state: 'waiting', for: ['a printer'] },
        { title: 'resin is enough', state: 'waiting', for: ['a printer'] },
        { title: 'no island', state: 'failed', sentence: 'It was too fine.' },
      ],
    )
    expect(list.text()).toContain('Not checked: it fits; resin is enough – needs a printer.')
    expect(list.text()).toContain('Not checked: no island – It was too fine.')
  })
  it('offers every fix, gives it to its handler whole, and says why one cannot be done now', async () => {
    const { list, support, reorient } = shown([island], [measured('a')], false)
    const [again, turn] = list.findAll('button').filter((b) => /Generate closer supports|Turn it/.test(b.text()))
    await again!.trigger('click')
    expect(support).toHaveBeenCalledExactlyOnceWith(island.fixes[0])
    expect(turn!.attributes('disabled')).toBeDefined()
    await turn!.trigger('click')
    expect(reorient).not.toHaveBeenCalled()
    expect(list.text()).toContain('Turn it: The search needs a printer.')
  })
  it('shows the places of a finding one after another, and begins again', async () => {
    const { list } = shown([island], [measured('a')])
    const show = list.findAll('button').find((b) => b.text().startsWith('Show'))!
    for (let i = 0; i < 3; i++) await show.trigger('click')
    expect(list.emitted('show')).toEqual([[[0, 0, 1]], [[2, 0, 4]], [[0, 0, 1]]])
  })
})

describe('a fix that was asked for in another stage', () => {
  it('is done where the stage has it and can, and left where it cannot', async () => {
    const there = shown([], [], false)
    await doFix(there.fixes, island.fixes[0]!)
    expect(there.support).toHaveBeenCalledOnce()
    await doFix(there.fixes, island.fixes[1]!)
    expect(there.reorient).not.toHaveBeenCalled()
    await doFix(there.fixes, { act: 'repair', label: '', effect: '' })
  })
})
