import { z } from 'zod'

/** What a table of kinds needs of a definition. */
export interface Kind {
  kind: string
  schema: z.ZodObject<{ kind: z.ZodLiteral<string> } & z.ZodRawShape>
}
type Schemas<T extends readonly Kind[]> = { readonly [I in keyof T]: T[I]['schema'] }

/**
 * A list of definitions as one table: the schema of any record of them, and each definition by its kind.
 *
 * @throws Error of a kind that is there twice: its records could not be told apart
 */
export function kindTable<const T extends readonly [Kind, ...Kind[]]>(
  list: T,
): { schema: z.ZodDiscriminatedUnion<Schemas<T>, 'kind'>; of: (kind: string) => T[number] | null } {
  const byKind = new Map<string, T[number]>()
  for (const d of list) {
    if (byKind.has(d.kind)) throw new Error(`There are two definitions of ${d.kind}.`)
    byKind.set(d.kind, d)
  }
  const schemas = list.map((d) => d.schema) as unknown as [Kind['schema'], ...Kind['schema'][]]
  return {
    // The same schemas, each with its own type: a map over a tuple forgets them.
    schema: z.discriminatedUnion('kind', schemas) as unknown as z.ZodDiscriminatedUnion<Schemas<T>, 'kind'>,
    of: (kind) => byKind.get(kind) ?? null,
  }
}
