import { bounds } from '../core/mesh/mesh'
import { identity3 } from '../core/math/vectors'
import { transformed } from '../core/mesh/transform'
import { inFileOrder, nest } from '../core/print/nest/nest'
import { nestDefaults, type NestItem, type NestPrinter } from '../core/print/nest/types'
import { silhouette } from '../core/print/nest/silhouette'
import { chainBody } from '../core/testBodies'

type Time = <T>(work: () => T | Promise<T>) => Promise<[number, T]>
type Row = (what: string, ours: number, baseline: string, theirs: number | null, wanted: string, note?: string) => void

/** Two dozen made-up figurines of mixed sizes over a small and a large printer. */
export async function plateRows(time: Time, row: Row): Promise<void> {
  const items = Array.from({ length: 24 }, (_, k): NestItem => {
    const size = 0.8 + 0.15 * (k % 5)
    const body = transformed(chainBody(100 + k, 6), [size, 0, 0, 0, size, 0, 0, 0, size * (1 + (k % 4))], [0, 0, 0])
    const stood = transformed(body, identity3, [0, 0, -bounds(body).min[2]])
    return { id: String(k), silhouette: silhouette(stood), copies: 1, turn: true, resin: '' }
  })
  const printer = (id: string, width: number, depth: number, height: number): NestPrinter => ({
    id,
    width,
    depth,
    height,
    seconds: (h) => 200 + 180 * h,
  })
  const printers = [printer('small', 120, 68, 165), printer('large', 218, 123, 220)]
  const plain = inFileOrder(items, printers)
  const [nested, n] = await time(() => nest(items, printers, nestDefaults))
  row(
    'nest 24 figurines over two printers',
    nested,
    '',
    null,
    '10 s, 15 % fewer machine hours',
    `${(100 * (1 - n.seconds / plain.seconds)).toFixed(0)} % fewer than one by one, ${n.left.length} left`,
  )
}
