import { ref } from 'vue'
import type { Check } from '../../contract/derivations'
import { useDerivations } from '../stores/derivations'
import { useAttempt } from './useAttempt'

/** Letters, digits and dashes of a name, for a file. */
export const nameForFile = (name: string): string =>
  name
    .replace(/[^\w-]+/g, '-')
    .toLowerCase()
    .slice(0, 80)

/** Has a file made of a body, and hands it over when it is there. */
export function useDownload() {
  const derivations = useDerivations()
  const { fault, busy, attempt } = useAttempt()
  /** what is being made, by its file's name */
  const making = ref('')
  const download = (mesh: string, check: Check & { format: string }, file: string): Promise<void> =>
    attempt(async () => {
      making.value = file
      try {
        const d = await derivations.settled(mesh, check)
        const a = document.createElement('a')
        a.href = `/api/blobs/${d.blobs[check.format]}?download=${file}`
        a.download = file
        a.click()
      } finally {
        making.value = ''
      }
    })
  return { download, making, fault, busy }
}
