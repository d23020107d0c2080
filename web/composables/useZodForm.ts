import { useForm } from '@tanstack/vue-form'
import { ref } from 'vue'
import type { z } from 'zod'
import { issueSaid } from '../../contract/issues'
import { say } from '../../core/words/say'
import { ApiProblem } from '../api'
import { messageOf } from '../messageOf'
import { manner } from '../manner'

/**
 * A form whose values are checked by the schema that the server checks them by. What is wrong with a field is said beside
 * it, whoever found it; what is wrong with no field is the form's own fault. What was typed stays until it was accepted.
 *
 * @param submit gets values as the schema made them; @throws what the server refuses
 */
export function useZodForm<S extends z.ZodObject>(
  schema: S,
  initial: () => z.input<S>,
  submit: (values: z.output<S>) => Promise<unknown>,
) {
  const fault = ref('')
  const refused = ref<Readonly<Record<string, string>>>({})
  const form = useForm({
    defaultValues: initial(),
    onSubmit: async ({ value }) => {
      const read = schema.safeParse(value, { reportInput: true })
      if (!read.success) {
        refused.value = Object.fromEntries(
          read.error.issues
            .map((issue) => [String(issue.path[0] ?? ''), say(issueSaid(issue, false), manner)])
            .reverse(),
        )
        return
      }
      try {
        await submit(read.data)
        form.reset(initial())
      } catch (e) {
        const at = e instanceof ApiProblem && typeof e.body.field === 'string' ? e.body.field.split('.')[0]! : ''
        if (at in schema.shape) refused.value = { [at]: messageOf(e) }
        else fault.value = messageOf(e)
      }
    },
  })
  const values = form.useSelector((s) => s.values)
  const busy = form.useSelector((s) => s.isSubmitting)
  /** A field as its component wants it: its value, what is wrong with it, and what is typed. */
  const bind = (name: keyof z.input<S> & string) => ({
    modelValue: (values.value as Record<string, unknown>)[name] as string,
    fault: refused.value[name] ?? '',
    'onUpdate:modelValue': (v: unknown) => {
      form.setFieldValue(name as never, v as never)
      // What is being mended is no longer said to be wrong.
      if (name in refused.value)
        refused.value = Object.fromEntries(Object.entries(refused.value).filter(([k]) => k !== name))
    },
  })
  const send = (): Promise<void> => {
    fault.value = ''
    refused.value = {}
    return form.handleSubmit()
  }
  return { bind, send, fault, busy, values }
}
