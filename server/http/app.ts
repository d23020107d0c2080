import expressStaticGzip from 'express-static-gzip'
import express, { type Express } from 'express'
import { existsSync } from 'node:fs'
import { fileURLToPath } from 'node:url'
import { stream } from '../data/events'
import { notFound } from '../domain/refusal'
import { problemHandler } from './problem'
import { describe, openApi } from './route'
import { bench } from './routes/bench'
import { derive } from './routes/derive'
import { paintRoutes } from './routes/paints'
import { pieces } from './routes/pieces'
import { calendarRoutes } from './routes/calendar'
import { cleaningRoutes } from './routes/cleaning'
import { inspections } from './routes/inspection'
import { materialRoutes } from './routes/materials'
import { runs } from './routes/runs'
import { search } from './routes/search'
import { sculpts } from './routes/sculpts'
import { stock } from './routes/stock'
import { ticks } from './routes/ticks'

/** The API under /api and the built web app beside it. */
export function makeApp(): Express {
  const app = express()
  app.disable('x-powered-by')
  app.use((_req, res, next) => {
    res.setHeader(
      'content-security-policy',
      "default-src 'self'; img-src 'self' blob: data:; style-src 'self' 'unsafe-inline'; worker-src 'self' blob:; script-src 'self' 'wasm-unsafe-eval'; connect-src 'self' blob: data:",
    )
    res.setHeader('x-content-type-options', 'nosniff')
    next()
  })
  describe('get', '/health', 'Whether the API answers')
  describe('get', '/events', 'What changes, as server-sent events')
  describe('get', '/openapi.json', 'This document')
  app.get('/api/health', (_req, res) => {
    res.json({ ok: true })
  })
  app.get('/api/events', stream)
  app.get('/api/openapi.json', (_req, res) => {
    res.json(openApi())
  })
  app.use(
    '/api',
    express.json({ limit: '4mb' }),
    pieces,
    sculpts,
    derive,
    bench,
    ticks,
    calendarRoutes,
    materialRoutes,
    paintRoutes,
    stock,
    runs,
    cleaningRoutes,
    inspections,
    search,
  )
  app.use('/api', (_req, _res, next) => {
    next(notFound('address'))
  })
  const web = fileURLToPath(new URL('../web', import.meta.url))
  if (existsSync(web)) {
    // Compressed once, by the build: a first visit loads a third of the bytes.
    app.use(
      expressStaticGzip(web, {
        index: false,
        enableBrotli: true,
        orderPreference: ['br'],
        serveStatic: { maxAge: '1y', immutable: true },
      }),
    )
    app.get(/^\/(?!api\/)/, (_req, res) => {
      res.setHeader('cache-control', 'no-store')
      res.sendFile('index.html', { root: web })
    })
  }
  app.use(problemHandler)
  return app
}
