import type { Request, RequestHandler, Response, Router } from 'express'
import { z } from 'zod'
import { mannerNamed, type Manner } from '../../core/words/manner'
import { spokenBody, type Unspoken } from '../../core/words/spokenBody'

/** How who asks wants to be spoken to. */
export const mannerOf = (req: Pick<Request, 'headers'>): Manner => mannerNamed(req.headers['accept-language'] ?? '')

interface Route {
  method: string
  path: string
  summary: string
  params: string[]
  query?: z.ZodObject
  body?: z.ZodType
  reply?: z.ZodType
}
const routes: Route[] = []

/** Notes an endpoint for the OpenAPI document; for those that answer by themselves, as streams do. */
export function describe(
  method: string,
  path: string,
  summary: string,
  shape: { query?: z.ZodObject; body?: z.ZodType; reply?: z.ZodType } = {},
): void {
  routes.push({ method, path, summary, params: [...path.matchAll(/:(\w+)/g)].map((m) => m[1]!), ...shape })
}

/**
 * Adds an endpoint whose query, body and reply are parsed by their schemas, and notes it for the OpenAPI document. What
 * the handler returns is sent, its messages in the words and units of who asks; `undefined` means that it has answered itself (streams) or that there is nothing.
 */
export function endpoint<B extends z.ZodType, R extends z.ZodType, Q extends z.ZodObject>(
  router: Router,
  method: 'get' | 'post' | 'put' | 'patch' | 'delete',
  path: string,
  summary: string,
  shape: { query?: Q; body?: B; reply?: R },
  handler: (
    req: Request<Record<string, string>>,
    body: z.infer<B>,
    res: Response,
    query: z.infer<Q>,
  ) => Promise<Unspoken<z.input<R>> | undefined>,
): void {
  describe(method, path, summary, shape)
  const run: RequestHandler = (req, res, next) => {
    void (async () => {
      const body = (shape.body ? shape.body.parse(req.body ?? {}, { reportInput: true }) : undefined) as z.infer<B>
      const query = (shape.query ? shape.query.parse(req.query) : {}) as z.infer<Q>
      const value = spokenBody(await handler(req as Request<Record<string, string>>, body, res, query), mannerOf(req))
      if (res.headersSent || res.writableEnded) return
      if (value === undefined) res.status(204).end()
      else res.json(shape.reply ? shape.reply.parse(value) : value)
    })().catch(next)
  }
  router[method](path, run)
}

/** OpenAPI 3.1 of everything that was added. */
export function openApi(): object {
  const paths: Record<string, Record<string, object>> = {}
  const problem = {
    description: 'Problem details (RFC 9457)',
    content: {
      'application/problem+json': {
        schema: {
          type: 'object',
          properties: {
            type: { type: 'string' },
            title: { type: 'string' },
            status: { type: 'integer' },
            detail: { type: 'string' },
            field: { type: 'string' },
          },
        },
      },
    },
  }
  for (const r of routes) {
    const path = `/api${r.path.replace(/:(\w+)/g, '{$1}')}`
    paths[path] ??= {}
    paths[path][r.method] = {
      summary: r.summary,
      parameters: [
        ...r.params.map((name) => ({ name, in: 'path', required: true, schema: { type: 'string' } })),
        ...Object.entries(r.query?.shape ?? {}).map(([name, schema]) => ({
          name,
          in: 'query',
          required: !z.safeParse(schema as z.ZodType, undefined).success,
          schema: z.toJSONSchema(schema as z.ZodType, { io: 'input', unrepresentable: 'any' }),
        })),
      ],
      ...(r.body
        ? {
            requestBody: {
              content: {
                'application/json': { schema: z.toJSONSchema(r.body, { io: 'input', unrepresentable: 'any' }) },
              },
            },
          }
        : {}),
      responses: {
        200: {
          description: 'Done',
          ...(r.reply
            ? { content: { 'application/json': { schema: z.toJSONSchema(r.reply, { unrepresentable: 'any' }) } } }
            : {}),
        },
        default: problem,
      },
    }
  }
  return { openapi: '3.1.0', info: { title: 'Undercut', version: '1' }, paths }
}

/** Defaults of absent fields must not overwrite what is there: of a partial change only keys that were sent count. */
export const sentOnly = <T extends object>(req: Pick<Request, 'body'>, fields: T): Partial<T> =>
  Object.fromEntries(Object.entries(fields).filter(([k]) => k in (req.body as object))) as Partial<T>
