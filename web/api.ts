import type { z } from 'zod'

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
      headers:
        body === undefined ? {} : { 'content-type': type ?? (raw ? 'application/octet-stream' : 'application/json') },
      body: body === undefined ? undefined : raw ? (body as BodyInit) : JSON.stringify(body),
    })
  } catch {
    throw new ApiProblem(
      0,
      'offline',
      'The server does not answer. Is Undercut still running? Nothing was lost; try again when it is.',
      {},
    )
  }
  if (reply.ok) return reply
  const details = (await reply.json().catch(() => ({}))) as Record<string, unknown>
  throw new ApiProblem(
    reply.status,
    String(details.title ?? 'fault'),
    String(details.detail ?? `The server answered ${reply.status}.`),
    details,
  )
}

/** JSON in and out, the reply parsed by its schema. */
export async function api<T extends z.ZodType>(
  schema: T,
  method: string,
  path: string,
  body?: BodyInit | object,
): Promise<z.infer<T>> {
  return schema.parse(await (await send(method, path, body)).json()) as z.infer<T>
}
export async function tell(method: string, path: string, body?: BodyInit | object): Promise<void> {
  await send(method, path, body)
}
export const fetchBytes = async (hash: string): Promise<Uint8Array> =>
  new Uint8Array(await (await send('GET', `/blobs/${hash}`)).arrayBuffer())
