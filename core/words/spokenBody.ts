import { METRIC, type Manner } from './manner'
import { isMessage, type Message } from './message'
import { sayStored } from './say'

/** A record whose text may still be messages. */
export type Unspoken<T> = T extends string
  ? string extends T
    ? T | Message
    : T
  : T extends readonly (infer U)[]
    ? T extends [unknown, ...unknown[]]
      ? { [K in keyof T]: Unspoken<T[K]> }
      : readonly Unspoken<U>[]
    : T extends Date | Uint8Array
      ? T
      : T extends object
        ? { [K in keyof T]: Unspoken<T[K]> }
        : T

/** The same with every message said; what is none stays the very thing that it was. */
export function spokenBody(body: unknown, m: Manner = METRIC): unknown {
  if (typeof body !== 'object' || body === null || body instanceof Date || ArrayBuffer.isView(body)) return body
  if (isMessage(body)) return sayStored(body, m)
  if (Array.isArray(body)) {
    const out = body.map((x) => spokenBody(x, m))
    return out.some((x, i) => x !== body[i]) ? out : body
  }
  const entries = Object.entries(body).map(([k, v]) => [k, spokenBody(v, m)] as const)
  return entries.some(([k, v]) => v !== (body as Record<string, unknown>)[k]) ? Object.fromEntries(entries) : body
}
