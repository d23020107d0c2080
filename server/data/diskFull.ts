import { message } from '../../core/words/message'

/** What PostgreSQL (SQLSTATE 53100, disk_full) and the system (ENOSPC) say when there is no room. */
const FULL = new Set(['53100', 'ENOSPC'])

export const DISK_FULL = message('refusals.request.diskFull')

/** Whether an error, or one that it carries, means that there is no room left. */
export function isDiskFull(error: unknown): boolean {
  for (let e = error; e && typeof e === 'object'; e = (e as { cause?: unknown }).cause) {
    const { code, parent } = e as { code?: string; parent?: { code?: string } }
    if (FULL.has(code ?? '') || FULL.has(parent?.code ?? '')) return true
  }
  return false
}
