import { expect, it } from 'vitest'
import { z } from 'zod'
import { issueSaid, issueSentence, words } from './issues'
import { nameOf } from './name'
import { say } from '../core/words/say'

const said = (schema: z.ZodType, value: unknown): string => issueSentence(schema.safeParse(value).error!.issues[0]!)

it('says which field is beyond which limit, wherever in a request it is', () => {
  const deep = z.object({ create: z.array(z.object({ width: z.number().min(5).max(1000) })) })
  expect(said(deep, { create: [{ width: 3.2 }] })).toBe('width: it must be at least 5.')
  expect(said(deep, { create: [{ width: 1e4 }] })).toBe('width: it must be at most 1,000.')
  expect(said(z.object({ wall: z.number().positive() }), { wall: 0 })).toBe('wall: it must be more than 0.')
  expect(said(z.object({ share: z.number().lt(1) }), { share: 1 })).toBe('share: it must be less than 1.')
  expect(said(z.object({ steps: z.int().min(1) }), { steps: 0 })).toBe('steps: it must be at least 1.')
  expect(said(z.object({ point: z.tuple([z.number().max(1)]) }), { point: [2] })).toBe('point: it must be at most 1.')
})
it('leaves other faults in the words of the schema, as one sentence', () => {
  expect(said(z.object({ name: z.string() }), {})).toMatch(/^name: Invalid input.*[^.]\.$/)
  expect(said(z.object({ name: z.string().min(1) }), { name: '' })).toBe('name: at least 1 character.')
  expect(
    said(
      z.number().refine(() => false, 'Say how much.'),
      1,
    ),
  ).toBe('Say how much.')
  expect(said(z.number().min(2), 1)).toBe('It must be at least 2.')
  expect(said(z.object({ hours: z.number().min(0, words('forms.aDurationCannotBeNegative')) }), { hours: -1 })).toBe(
    'hours: A duration cannot be negative.',
  )
})
it('beside its field says no name, and how much too long a text is, counted in characters and not in units of code', () => {
  const name = z.object({ name: nameOf(120, 'forms.giveThePieceAName') })
  const beside = (value: string): string => {
    const issue = name.safeParse({ name: value }, { reportInput: true }).error!.issues[0]!
    return say(issueSaid(issue, false))
  }
  expect(beside('  ')).toBe('Give the piece a name.')
  expect(beside('🐦'.repeat(150))).toBe('At most 120 characters; there are 150.')
  expect(name.safeParse({ name: '🐦'.repeat(120) }).success).toBe(true)
  expect(said(name, { name: 'x'.repeat(300) })).toMatch(/^name: at most 120 characters/)
})
