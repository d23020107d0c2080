import { expect, it } from 'vitest'
import { makeApp } from './app'
import { openApi } from './route'

interface Layer {
  route?: { path: string | RegExp; methods: Record<string, boolean> }
  handle: { stack?: Layer[] }
}
/** "get /api/pieces/{id}" of every handler that the app really has. */
function served(stack: readonly Layer[], within: string): string[] {
  return stack.flatMap(({ route, handle }) => {
    if (!route) return handle.stack ? served(handle.stack, '/api') : []
    if (typeof route.path !== 'string') return []
    const path = (route.path.startsWith('/api') ? route.path : within + route.path).replace(/:(\w+)/g, '{$1}')
    return Object.keys(route.methods).map((m) => `${m} ${path}`)
  })
}

it('describes every address that the API has, and none that it has not, each once', () => {
  const app = makeApp() as unknown as { router: { stack: Layer[] } }
  // A parser of the body may stand before a handler, under the same address.
  const real = [...new Set(served(app.router.stack, ''))]
  const { paths } = openApi() as {
    paths: Record<string, Record<string, { parameters: { name: string; in: string }[] }>>
  }
  const described = Object.entries(paths).flatMap(([path, methods]) => Object.keys(methods).map((m) => `${m} ${path}`))
  expect(real.length).toBeGreaterThan(80)
  expect([...described].sort()).toEqual([...real].sort())
  for (const [path, methods] of Object.entries(paths))
    for (const { parameters } of Object.values(methods))
      expect(parameters.filter((p) => p.in === 'path').map((p) => p.name)).toEqual(
        [...path.matchAll(/\{(\w+)\}/g)].map((m) => m[1]),
      )
  expect(paths['/api/pieces']!.get!.parameters.map((p) => p.name)).toEqual(['limit', 'cursor'])
})
