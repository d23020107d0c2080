// @vitest-environment happy-dom
import { mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import { h } from 'vue'
import { createMemoryHistory, createRouter } from 'vue-router'
import { PIECE_STAGES } from '../../core/stages'
import { explained } from '../../core/words/glossary'
import vocabulary from '../../core/words/en/vocabulary.json' with { type: 'json' }
import { choicesOf, questionOf, term } from '../i18n'
import { router } from '../router'
import FaultNote from './FaultNote.vue'
import FoldPanel from './FoldPanel.vue'
import TermText from './TermText.vue'

describe('a folded panel', () => {
  const folded = (open?: boolean) =>
    mount(FoldPanel, {
      props: { open },
      slots: { title: 'Grow <b>it</b>', default: '<input class="inside" />' },
    })
  const title = (at: ReturnType<typeof folded>) => at.find('.fold-title')
  it('is shut until its title is clicked, tells who asks, and says which content it opens', async () => {
    const at = folded()
    expect(title(at).attributes('aria-expanded')).toBe('false')
    await title(at).trigger('click')
    expect(title(at).attributes('aria-expanded')).toBe('true')
    expect(at.find(`#${title(at).attributes('aria-controls')} .inside`).exists()).toBe(true)
    await title(at).trigger('click')
    expect(at.emitted('toggle')).toEqual([[true], [false]])
  })
  it('keeps what is typed in it while it is shut', async () => {
    const at = folded(true)
    await at.find<HTMLInputElement>('.inside').setValue('7')
    await title(at).trigger('click')
    await title(at).trigger('click')
    expect(at.find<HTMLInputElement>('.inside').element.value).toBe('7')
  })
  it('follows its owner, who opens and shuts it without a click', async () => {
    const at = folded(false)
    await at.setProps({ open: true })
    expect(title(at).attributes('aria-expanded')).toBe('true')
    await at.setProps({ open: false })
    expect(title(at).attributes('aria-expanded')).toBe('false')
    expect(at.emitted('toggle')).toBeUndefined()
  })
})

describe('a fault', () => {
  it('is there while there is a sentence, is announced, and takes what it says as it is', async () => {
    const at = mount(FaultNote, { props: { text: '' as string | null } })
    expect(at.find('[role=alert]').exists()).toBe(false)
    await at.setProps({ text: 'שלום <b>x</b> 🐦' })
    expect(at.find('[role=alert]').text()).toBe('שלום <b>x</b> 🐦')
    await at.setProps({ text: null })
    expect(at.find('[role=alert]').exists()).toBe(false)
  })
})

describe('a sentence with words of the craft', () => {
  it('reads as before, and each word can be reached by the keyboard', () => {
    const sentence = 'A suction cup closes; the suction cup pulls on the raft.'
    const pieces = explained(sentence)
    const at = mount({ render: () => h('p', h(TermText, { pieces })) }, { attachTo: document.body })
    expect(at.find('p').element.textContent).toBe(sentence)
    const terms = at.findAll('dfn')
    expect(terms.map((t) => t.text())).toEqual(['suction cup', 'raft'])
    expect(terms.every((t) => t.attributes('tabindex') === '0')).toBe(true)
    at.unmount()
  })
})

describe('addresses', () => {
  const history = createMemoryHistory()
  const at = createRouter({ history, routes: router.options.routes })
  /** Where an address leads, without loading the screen there. */
  const leads = (path: string): string => {
    const found = at.resolve(path)
    const to = found.matched.at(-1)?.redirect
    if (!to) return found.path
    const target = typeof to === 'function' ? to(found, found as never) : to
    return typeof target === 'string'
      ? target
      : at.resolve({ ...(target as object), params: found.params } as never).path
  }
  it('that stages had before lead to the stages of now', () => {
    expect(['intake', 'size', 'core', 'stand'].map((was) => leads(`/pieces/p1/${was}`))).toEqual([
      '/pieces/p1/import',
      '/pieces/p1/scale',
      '/pieces/p1/hollow',
      '/pieces/p1/orient',
    ])
  })
  it('are there for every stage that has findings, and none leads nowhere', () => {
    for (const name of PIECE_STAGES) expect(leads(`/pieces/p1/${name}`)).toBe(`/pieces/p1/${name}`)
    expect(leads('/')).toBe('/pieces')
    expect(leads('/no/such/place')).toBe('/pieces')
    expect(leads('/pieces/p1')).toBe('/pieces/p1/import')
  })
})

describe('words of stored records', () => {
  it('are shown by the vocabulary, whatever the record calls them', () => {
    expect(term('tipSize', 'whisker')).toBe('fine')
    expect(term('technique', 'dry brush')).toBe('dry brush')
    expect(questionOf('strip')).toBe('Supports are removed')
    expect(Object.keys(choicesOf('undercoat'))).toEqual(Object.keys(vocabulary.school.undercoat.choices))
    expect(choicesOf('undercoat').zenithal).toBe('black, then white from above')
  })
})
