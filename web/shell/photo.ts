import { text } from '../i18n'
import { pictureHead } from '../../core/formats/pictureHead'

/** Pixels along the longer side that a photo is kept with: enough to count grains of sand on a seam. */
const LONGEST = 3000
/** Bytes over which also a smaller picture is written again. */
const HEAVY = 6_000_000
/** Pixels that are opened here at most. */
const MAX_PIXELS = 120_000_000

/**
 * A photo as it goes into the record: told by its bytes, not by its name, and made smaller where it is larger than anybody
 * looks at it.
 *
 * @throws Error with a sentence, of what is no picture or cannot be opened here
 */
export async function preparePhoto(file: File): Promise<Blob> {
  const head = pictureHead(new Uint8Array(await file.slice(0, 262_144).arrayBuffer()))
  if (!head) throw new Error(text('shell.photo.isNoPictureThat', { name: file.name }))
  const { width, height } = head
  if (width * height > MAX_PIXELS)
    throw new Error(
      text('shell.photo.hasMillionPixelsMore', {
        name: file.name,
        round: Math.round((width * height) / 1e6),
        MAX_PIXELS: MAX_PIXELS / 1e6,
      }),
    )
  const longest = Math.max(width, height)
  if (longest <= LONGEST && file.size <= HEAVY) return file
  const scale = Math.min(1, LONGEST / longest)
  try {
    const small = await createImageBitmap(file, {
      resizeWidth: Math.max(1, Math.round(width * scale)),
      resizeHeight: Math.max(1, Math.round(height * scale)),
      resizeQuality: 'high',
    })
    const canvas = new OffscreenCanvas(small.width, small.height)
    canvas.getContext('2d')!.drawImage(small, 0, 0)
    small.close()
    return await canvas.convertToBlob({ type: 'image/jpeg', quality: 0.9 })
  } catch {
    throw new Error(text('shell.photo.isDamagedItCannot', { name: file.name }))
  }
}
