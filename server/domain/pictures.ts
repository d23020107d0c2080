import { pictureHead } from '../../core/formats/pictureHead'
import { blobSize, readStream } from '../data/blobs'
import { Refusal } from './refusal'
import { message } from '../../core/words/message'

/** Bytes in which a picture says what it is. */
const HEAD = 1_000_000

/** @throws Refusal of a photo that is not in the store, or that is no picture */
export async function mustBePicture(hash: string | null | undefined): Promise<void> {
  if (!hash) return
  if ((await blobSize(hash)) === null)
    throw new Refusal(409, 'no-photo', message('refusals.pictures.thePhotoHasNotArrived'))
  const parts: Uint8Array[] = []
  let size = 0
  for await (const part of readStream(hash)) {
    parts.push(part)
    if ((size += part.length) >= HEAD) break
  }
  if (!pictureHead(Buffer.concat(parts)))
    throw new Refusal(422, 'no-picture', message('refusals.pictures.thePhotoIsNoPicture'))
}
