import type { z } from 'zod'
import { text } from './i18n'
import { acceptLanguage } from './manner'

/** What the server answered instead of what was asked, as a sentence. */
export class ApiProblem extends Error {
  constructor(
    readonly status: number,
    readonly code: string,
    message: string,
    readonly body: Record<string, unknown>,
  ) {
    super(message)
  }
}

async function send(method: string, path: string, body?: BodyInit | object, type?: string): Promise<Response> {
  const raw = body instanceof Blob || body instanceof ArrayBuffer || ArrayBuffer.isView(body)
  let reply: Response
  try {
    reply = await fetch(`/api${path}`, {
      method,
      headers: {
        'accept-language': acceptLanguage,
        ...(body === undefined
          ? {}
          : { 'content-type': type ?? (raw ? 'application/octet-stream' : 'application/json') }),
      },
      body: body === undefined ? undefined : raw ? (body as BodyInit) : JSON.stringify(body),
    })
  } catch {
    throw new ApiProblem(0, 'offline', text('stores.api.theServerDoesNotAnswer'), {})
  }
  if (reply.ok) return reply
  const details = (await reply.json().catch(() => ({}))) as Record<string, unknown>
  throw new ApiProblem(
    reply.status,
    String(details.title ?? 'fault'),
    String(details.detail ?? text('stores.api.theServerAnswered', { status: String(reply.status) })),
    details,
  )
}

/** @throws ApiProblem where the server and this page are of different days */
function understood<T extends z.ZodType>(schema: T, path: string, value: unknown): z.infer<T> {
  const read = schema.safeParse(value)
  if (read.success) return read.data as z.infer<T>
  console.error(path, read.error)
  throw new ApiProblem(0, 'unreadable', text('stores.api.unreadable'), {})
}

/** JSON in and out, the reply parsed by its schema. */
export async function api<T extends z.ZodType>(
  schema: T,
  method: string,
  path: string,
  body?: BodyInit | object,
): Promise<z.infer<T>> {
  return understood(schema, path, await (await send(method, path, body)).json())
}
export async function tell(method: string, path: string, body?: BodyInit | object): Promise<void> {
  await send(method, path, body)
}
export const fetchBytes = async (hash: string): Promise<Uint8Array> =>
  new Uint8Array(await (await send('GET', `/blobs/${hash}`)).arrayBuffer())

/**
 * A list that comes in pages, all of it; `sofar` is shown what there is after each page.
 *
 * @param path with the number of items a page in its query
 */
export async function apiPages<T extends z.ZodType>(
  item: T,
  path: string,
  sofar: (list: z.infer<T>[]) => void = () => undefined,
): Promise<z.infer<T>[]> {
  const all: z.infer<T>[] = []
  for (let next: string | undefined = path; next !== undefined;) {
    const reply: Response = await send('GET', next)
    all.push(...((await reply.json()) as unknown[]).map((x) => understood(item, next!, x)))
    sofar([...all])
    next = /<\/api([^>]+)>; rel="next"/.exec(reply.headers.get('link') ?? '')?.[1]
  }
  return all
}
