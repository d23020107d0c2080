import { unzipSync } from 'fflate'
import { bad, good, type Answer } from '../answer'
import { message } from '../words/message'

/** Limits for any archive that is opened: a file that asks for more is hostile or broken. */
const MAX_ENTRIES = 2000
const MAX_BYTES = 3_000_000_000
/** deflate reaches about 1032 to 1; text models reach about 20 */
const MAX_RATIO = 400
const SMALL = 1_000_000

/**
 * Entries of a ZIP whose names are wanted, by name. Names are only ever looked up, never used as paths; limits on
 * count, total size and expansion are checked from the directory before anything is expanded.
 */
export function openZip(bytes: Uint8Array, wanted: (name: string) => boolean): Answer<Map<string, Uint8Array>> {
  let entries = 0,
    total = 0,
    refusal: ReturnType<typeof bad> | null = null
  try {
    const files = unzipSync(bytes, {
      filter: ({ name, size, originalSize, compression }) => {
        entries++
        if (refusal || name.endsWith('/') || !wanted(name)) return false
        total += originalSize
        if (entries > MAX_ENTRIES)
          refusal = bad(
            'archive-too-many',
            message('problems.archive.thereAreMoreThanFiles', { max_entries: MAX_ENTRIES }),
          )
        else if (total > MAX_BYTES)
          refusal = bad('archive-too-large', message('problems.archive.unpackedTheArchiveWouldBe'))
        else if (originalSize > SMALL && originalSize > size * MAX_RATIO)
          refusal = bad('archive-bomb', message('problems.archive.anEntryWouldUnpackTo'))
        else if (compression !== 0 && compression !== 8)
          refusal = bad('archive-method', message('problems.archive.theArchiveIsPackedBy'))
        return refusal === null
      },
    })
    return refusal ?? good(new Map(Object.entries(files)))
  } catch {
    return refusal ?? bad('archive-damaged', message('problems.archive.theArchiveIsDamagedOr'))
  }
}
