import type { ErrorRequestHandler } from 'express'
import { ZodError } from 'zod'
import { issueSaid } from '../../contract/issues'
import { Refusal } from '../domain/refusal'
import { DISK_FULL, isDiskFull } from '../data/diskFull'
import { say } from '../../core/words/say'
import { mannerOf } from './route'
import { message } from '../../core/words/message'

export const problemHandler: ErrorRequestHandler = (error: unknown, req, res, next) => {
  if (res.headersSent) {
    next(error)
    return
  }
  // A sender that is still at it hears the answer only once it has been let finish.
  if (!req.complete && !req.destroyed) req.resume()
  const reply = (status: number, type: string, detail: string, extra: object = {}): void => {
    res
      .status(status)
      .type('application/problem+json')
      .send(JSON.stringify({ type: `urn:undercut:${type}`, title: type, status, detail, ...extra }))
  }
  if (error instanceof Refusal) {
    reply(error.status, error.code, say(error.said, mannerOf(req)), error.extra)
    return
  }
  if (error instanceof ZodError) {
    const issue = error.issues[0]!
    reply(422, 'invalid', say(issueSaid(issue), mannerOf(req)), {
      field: issue.path.join('.'),
    })
    return
  }
  if (error instanceof SyntaxError && 'body' in error) {
    reply(400, 'not-json', say(message('refusals.request.notJson'), mannerOf(req)))
    return
  }
  if ((error as { type?: string }).type === 'entity.too.large') {
    reply(413, 'too-large', say(message('refusals.request.tooLarge'), mannerOf(req)))
    return
  }
  if (isDiskFull(error)) {
    reply(507, 'disk-full', say(DISK_FULL, mannerOf(req)))
    return
  }
  // The sender went away in the middle; there is nobody to answer, and nothing was kept.
  if (req.destroyed || (error as { code?: string }).code === 'ECONNRESET') {
    res.destroy()
    return
  }
  const id = Math.random().toString(36).slice(2, 10)
  console.error(`[${id}] ${req.method} ${req.path}`, error)
  reply(500, 'fault', say(message('refusals.request.fault', { id }), mannerOf(req)))
}
