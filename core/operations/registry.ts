import type { z } from 'zod'
import type { Message } from '../words/message'
import { kindTable } from '../schemas/kindTable'
import type { Measures } from '../mesh/measure'
import { base } from './base'
import { bay } from './bay'
import { calibrate } from './calibrate'
import { channel } from './channel'
import { cut } from './cut'
import { drill } from './drill'
import { fix } from './fix'
import { focal } from './focal'
import { guide } from './guide'
import { hollow } from './hollow'
import { join } from './join'
import { nameplate } from './nameplate'
import { orient } from './orient'
import { place } from './place'
import { plug } from './plug'
import { pose } from './pose'
import { rebuild } from './rebuild'
import { repair } from './repair'
import { scale } from './scale'
import { simplify } from './simplify'
import { smooth } from './smooth'
import { support } from './support'
import { surface } from './surface'
import { thicken } from './thicken'
import { trim } from './trim'

/**
 * Every kind of operation, in the order in which a part's operations make sense: a new one is put in its place in a list,
 * not at the end.
 */
export const OPERATIONS = [
  base,
  nameplate,
  trim,
  surface,
  rebuild,
  repair,
  calibrate,
  smooth,
  simplify,
  pose,
  place,
  scale,
  thicken,
  join,
  cut,
  fix,
  // The bay first: its walls are measured before a channel opens into it.
  bay,
  channel,
  // Changes no face: a note on the skin that goes along with it.
  focal,
  plug,
  guide,
  hollow,
  drill,
  orient,
  support,
] as const

const table = kindTable(OPERATIONS)
type Definition = (typeof OPERATIONS)[number]
export type OperationKind = Definition['kind']
type DefinitionOf<K extends OperationKind> = Extract<Definition, { kind: K }>
/** The operation records of a part, with defaults, as they cross the API, the archive and the command line. */
export const operation = table.schema
export type Operation = z.output<typeof operation>
export type OperationInput = z.input<typeof operation>
/** What is reported of an operation: the measures of its result, and what is its own. */
export type OperationReport<K extends OperationKind = OperationKind> = {
  [I in K]: { kind: I; measures: Measures } & z.output<DefinitionOf<I>['report']>
}[K]

const ranks = new Map<string, number>(OPERATIONS.map((o, i) => [o.kind, i]))

/** The definition of a kind; null of what is no operation. */
export const operationOf = (kind: string): Definition | null => table.of(kind)
/** Place of a kind in working order. */
export const rankOf = (kind: OperationKind): number => ranks.get(kind) ?? -1
/** Kinds that a list may hold several of. */
export const REPEATED: readonly OperationKind[] = OPERATIONS.filter((o) => o.repeated).map((o) => o.kind)
/** Whether a part only helps to make the piece: made from another part's body, it stands nowhere in it. */
export const isAid = (operations: readonly { kind: string }[]): boolean =>
  operations.some((o) => operationOf(o.kind)?.aid ?? false)
/** Hashes of the meshes that an operation needs beside the one it changes, in the order in which it gets them. */
export const othersOf = (op: Operation): string[] => (operationOf(op.kind)!.others as (op: Operation) => string[])(op)
/** An operation in a few words. */
export const labelOf = (op: Operation): Message => (operationOf(op.kind)!.label as (op: Operation) => Message)(op)
