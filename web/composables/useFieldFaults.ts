import { ref } from 'vue'
import type { z } from 'zod'
import { issueSaid } from '../../contract/issues'
import { say } from '../../core/words/say'
import { ApiProblem } from '../api'
import { manner } from '../manner'
import { messageOf } from '../messageOf'

/**
 * What is wrong with the fields of a form, each by its path in the schema, "people.0.name".
 *
 * `fault` is what is wrong with none of the fields that are shown.
 */
export function useFieldFaults() {
  const all = ref<Readonly<Record<string, string>>>({}),
    fault = ref('')
  /** The values as the schema makes them, or null: then what is wrong is said. */
  function read<S extends z.ZodType>(schema: S, values: unknown): z.output<S> | null {
    clear()
    const r = schema.safeParse(values, { reportInput: true })
    if (r.success) return r.data
    // Of several issues of one field the first is said.
    all.value = Object.fromEntries(
      r.error.issues.map((i) => [i.path.join('.'), say(issueSaid(i, false), manner)] as const).reverse(),
    )
    return null
  }
  /** Says what the server refuses: beside its field, where that is one of `shown`. */
  function refuse(error: unknown, shown: (field: string) => boolean): void {
    const field = error instanceof ApiProblem && typeof error.body.field === 'string' ? error.body.field : ''
    if (field !== '' && shown(field)) all.value = { [field]: messageOf(error) }
    else fault.value = messageOf(error)
  }
  const of = (path: string): string => all.value[path] ?? ''
  /** What is being mended is no longer said to be wrong. */
  function mend(path: string): void {
    if (path in all.value) all.value = Object.fromEntries(Object.entries(all.value).filter(([key]) => key !== path))
  }
  function clear(): void {
    all.value = {}
    fault.value = ''
  }
  return { read, refuse, of, mend, clear, fault, all }
}
