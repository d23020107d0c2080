import type { z } from 'zod'
import type { Message } from '../words/message'
import type { Answer, Report } from '../answer'
import type { PieceStage } from '../stages'
import type { Mesh } from '../mesh/mesh'

/** The same values, none of which may be changed: what a kernel gives may be read-only where its reader's copy is not. */
export type Frozen<T> = T extends object ? { readonly [K in keyof T]: Frozen<T[K]> } : T

/** A record with a `kind`, and the fields of that kind. */
export type KindSchema = z.ZodObject<{ kind: z.ZodLiteral<string> } & z.ZodRawShape>

/**
 * One kind of operation: everything that the program knows of it. Each is a file of its own, named in the registry.
 *
 * The kernel behind it is imported when it is applied, so that whoever only reads records loads none.
 *
 * @template S schema of its record, with defaults
 * @template R schema of what its report adds to the measures that all have
 */
export interface OperationDefinition<S extends KindSchema = KindSchema, R extends z.ZodType = z.ZodType> {
  kind: z.output<S>['kind']
  /** Raised whenever the same record gives other bytes, so that a new result never passes for an old one. */
  version: number
  /** where it is made and changed */
  stage: PieceStage
  /** whether a list may hold several of it */
  repeated: boolean
  /** whether it can be done with points that have no faces yet */
  clouds: boolean
  /** whether its part only helps to make the piece, and stands nowhere in it */
  aid: boolean
  /** whether it makes the body that all later ones work on: nothing is done after it when it fails */
  makes: boolean
  /** kinds that it builds on: left out when one of them is in the list and failed */
  buildsOn: readonly string[]
  schema: S
  report: R
  /** the operation in a few words, for the list of what was done */
  label: (op: z.output<S>) => Message
  /** hashes of the meshes that it needs beside the one it changes, in the order in which it gets them */
  others: (op: z.output<S>) => string[]
  /** Never changes its input; a problem leaves nothing behind. */
  apply: (input: {
    mesh: Mesh
    op: z.output<S>
    others: readonly Mesh[]
    progress: Report
  }) => Promise<Answer<{ mesh: Mesh; report: Frozen<z.output<R>> }>>
}

/** What may be left out of a definition, with what it then is. */
const USUAL = { repeated: false, clouds: false, aid: false, makes: false, buildsOn: [], others: () => [] }

export function defineOperation<const S extends KindSchema, R extends z.ZodType>(
  d: Omit<OperationDefinition<S, R>, 'kind' | keyof typeof USUAL> &
    Partial<Pick<OperationDefinition<S, R>, keyof typeof USUAL>>,
): OperationDefinition<S, R> {
  return { kind: d.schema.shape.kind.value as z.output<S>['kind'], ...USUAL, ...d }
}

/** A number as a label has it: no more decimals than tell it. */
export const rounded = (v: number, digits = 2): number => Number(v.toFixed(digits))
