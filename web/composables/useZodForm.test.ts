// @vitest-environment happy-dom
import { mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import { defineComponent, h } from 'vue'
import { z } from 'zod'
import { nameOf } from '../../contract/name'
import { ApiProblem } from '../api'
import TextField from '../shell/TextField.vue'
import { useZodForm } from './useZodForm'

const schema = z.object({ name: nameOf(12, 'forms.giveThePieceAName'), note: z.string().max(5).default('') })
/** A form of two fields; `answer` is what the server does with what it gets. */
function open(answer: (values: z.output<typeof schema>) => Promise<unknown>) {
  let form!: ReturnType<typeof useZodForm<typeof schema>>
  const at = mount(
    defineComponent(() => {
      form = useZodForm(schema, () => ({ name: '', note: '' }), answer)
      return () => [
        h(TextField, { label: 'Name', ...form.bind('name') }),
        h(TextField, { label: 'Note', ...form.bind('note') }),
        h('p', { class: 'fault' }, form.fault.value),
      ]
    }),
  )
  const fields = () => at.findAll<HTMLInputElement>('input')
  const wrong = () =>
    at.findAllComponents(TextField).map((f) => f.find('[role=alert]').exists() && f.find('[role=alert]').text())
  return { at, form, fields, wrong }
}

describe('a form', () => {
  it('says beside each field what is wrong with it, sends nothing, and keeps what was typed', async () => {
    const sent: unknown[] = []
    const { form, fields, wrong, at } = open((v) => Promise.resolve(sent.push(v)))
    await fields()[0]!.setValue('שם ארוך מדי 🐦🐦')
    await fields()[1]!.setValue('too long')
    await form.send()
    expect(wrong()).toEqual(['At most 12 characters; there are 14.', 'At most 5 characters; there are 8.'])
    expect(fields().map((f) => f.element.value)).toEqual(['שם ארוך מדי 🐦🐦', 'too long'])
    expect(fields()[0]!.attributes()).toMatchObject({ 'aria-invalid': 'true', dir: 'auto' })
    const said = at.find(`#${fields()[0]!.attributes('aria-describedby')}`)
    expect(said.text()).toMatch(/^At most 12/)
    expect(sent).toEqual([])
    // What is mended is no longer said to be wrong; the other still is.
    await fields()[0]!.setValue('שם 🐦')
    expect(wrong()).toEqual([false, 'At most 5 characters; there are 8.'])
    await fields()[1]!.setValue('')
    await form.send()
    expect(sent).toEqual([{ name: 'שם 🐦', note: '' }])
    expect(fields().map((f) => f.element.value)).toEqual(['', ''])
  })
  it('says what the server refuses where it belongs, and sends again', async () => {
    const answers = [
      new ApiProblem(422, 'invalid', 'Another piece has this name.', { field: 'name' }),
      new ApiProblem(503, 'offline', 'The server does not answer.', {}),
    ]
    const { form, fields, wrong, at } = open(() => (answers[0] ? Promise.reject(answers.shift()!) : Promise.resolve()))
    await fields()[0]!.setValue('Otter')
    await form.send()
    expect([wrong(), at.find('.fault').text()]).toEqual([['Another piece has this name.', false], ''])
    await form.send()
    expect([wrong(), at.find('.fault').text()]).toEqual([[false, false], 'The server does not answer.'])
    expect(fields()[0]!.element.value).toBe('Otter')
    await form.send()
    expect([at.find('.fault').text(), fields()[0]!.element.value]).toEqual(['', ''])
  })
})
