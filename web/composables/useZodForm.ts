import { useForm } from '@tanstack/vue-form'
import type { z } from 'zod'
import { useFieldFaults } from './useFieldFaults'

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
  const faults = useFieldFaults()
  const form = useForm({
    defaultValues: initial(),
    onSubmit: async ({ value }) => {
      const read = faults.read(schema, value)
      if (read === null) return
      try {
        await submit(read as z.output<S>)
        form.reset(initial())
      } catch (e) {
        faults.refuse(e, (field) => field in schema.shape)
      }
    },
  })
  const values = form.useSelector((s) => s.values)
  const busy = form.useSelector((s) => s.isSubmitting)
  /** A field as its component wants it: its value, what is wrong with it, and what is typed. */
  const bind = (name: keyof z.input<S> & string) => ({
    modelValue: (values.value as Record<string, unknown>)[name] as string,
    fault: faults.of(name),
    'onUpdate:modelValue': (v: unknown) => {
      form.setFieldValue(name as never, v as never)
      faults.mend(name)
    },
  })
  const send = (): Promise<void> => {
    faults.clear()
    return form.handleSubmit()
  }
  return { bind, send, fault: faults.fault, busy, values }
}
