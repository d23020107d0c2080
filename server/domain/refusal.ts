/** A request that is refused: an HTTP status, a stable code and a sentence that a bench worker understands. */
export class Refusal extends Error {
  constructor(
    readonly status: number,
    readonly code: string,
    message: string,
    readonly extra: Record<string, unknown> = {},
  ) {
    super(message)
  }
}
export const notFound = (what: string): Refusal =>
  new Refusal(404, 'not-found', `${what} is not there (any more). It may have been deleted in another window.`)
export const stale = (current: unknown): Refusal =>
  new Refusal(409, 'stale-version', 'This was changed in another window meanwhile. Look at both versions and choose.', {
    current,
  })
