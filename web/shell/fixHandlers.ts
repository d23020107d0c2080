import type { Act, Fix } from '../../core/findings/fix'
import type { ActsAt } from '../../core/findings/registry'
import type { Stage } from '../../core/findings/rule'

/** What a press on a fix does; `unless` says why it cannot be done now, which is shown in place of its effect. */
export type Handler<A extends Act> =
  ((fix: Fix<A>) => unknown) | { run: (fix: Fix<A>) => unknown; unless: (fix: Fix<A>) => string | null }
/** One for each of the acts: one that is forgotten does not compile. */
export type Handlers<A extends Act> = { readonly [X in A]: Handler<X> }
/** One for each fix that the rules of a stage may offer. */
export type StageHandlers<S extends Stage> = Handlers<ActsAt<S>>

/** Does a fix that was asked for elsewhere, if the stage has it and it can be done. */
export async function doFix<A extends Act>(handlers: Handlers<A>, fix: Fix): Promise<void> {
  const h = (handlers as Partial<Handlers<Act>>)[fix.act] as Handler<Act> | undefined
  if (!h) return
  if (typeof h === 'function') await h(fix)
  else if (h.unless(fix) === null) await h.run(fix)
}
