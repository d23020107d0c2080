import { expect, it } from 'vitest'
import { shop } from '../stages/stageTesting'
import { fakePage } from './fakeServer'
import { useStock } from './stock'

const ID = '44444444-4444-4444-8444-444444444444'
const json = (body: unknown, status = 200): Response => new Response(JSON.stringify(body), { status })

it('has changed what the server changed, although the list cannot be read again: no refusal is made of that', async () => {
  let reachable = true
  const resin = (data: object, version: number): object => ({ id: ID, kind: 'resin', version, data })
  fakePage((url, init) => {
    if (init?.method === 'PUT') {
      reachable = false
      return Promise.resolve(json(resin({ name: 'Grey', price: 40 }, 2)))
    }
    if (init?.method === 'DELETE') return Promise.resolve(new Response(null, { status: 204 }))
    if (!reachable) return Promise.reject(new TypeError('no connection'))
    return Promise.resolve(json(url.endsWith('/workshop') ? shop() : [resin({ name: 'Grey', price: 30 }, 1)]))
  })
  const stock = useStock()
  await stock.load()
  await stock.change('resin', ID, { price: 40 })
  expect(stock.resins).toMatchObject([{ price: 40, version: 2 }])
  await stock.remove('resin', ID)
  // Once there is a connection again, the list is read again.
  reachable = true
  await stock.load()
  expect(stock.resins).toMatchObject([{ price: 30 }])
})
