import { usePiece } from '../stores/piece'

/** Sets the size. Parts that stand together grow together, about one point; a part alone about its own foot. */
export function useScaling() {
  const store = usePiece()
  async function set(factor: number, axes: [number, number, number]): Promise<void> {
    const several = (store.piece?.partList.length ?? 0) > 1
    const op = { kind: 'scale' as const, factor, axes, about: several ? ('origin' as const) : ('foot' as const) }
    if (!several) await store.apply(op)
    else
      await store.arrange({
        lists: store.piece!.partList.map((p) => ({ id: p.id, operations: store.withOperation(p, op) })),
      })
  }
  /** Times the size that it has. */
  async function by(factor: number): Promise<void> {
    const op = store.step('scale')?.op
    const now = op?.kind === 'scale' ? op : { factor: 1, axes: [1, 1, 1] as [number, number, number] }
    await set(now.factor * factor, now.axes)
  }
  return { set, by }
}
