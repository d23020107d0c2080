import { Zip, ZipPassThrough } from 'fflate'
import { putStream } from './blobs'

/** A zip that is stored while it is being written: files go in, chunks go to the blob store, nothing piles up. */
export class ZipToStore {
  private readonly chunks: Uint8Array[] = []
  private wake: (() => void) | null = null
  private ended = false
  private readonly zip = new Zip((error, chunk, final) => {
    if (error) throw error
    this.chunks.push(chunk)
    if (final) this.ended = true
    this.wake?.()
  })
  /** settles with the archive's hash when `finish` was called and the last byte is stored */
  readonly stored: Promise<{ hash: string; size: number }>

  constructor() {
    this.stored = putStream(this.drain())
    this.stored.catch(() => undefined)
  }

  add(name: string, bytes: Uint8Array): void {
    // PNGs are deflated already: they are stored as they are.
    const entry = new ZipPassThrough(name)
    this.zip.add(entry)
    entry.push(bytes, true)
  }

  finish(): Promise<{ hash: string; size: number }> {
    this.zip.end()
    return this.stored
  }

  /** Gives up: what was stored so far is removed. */
  abandon(reason: Error): void {
    this.failure = reason
    this.wake?.()
  }

  private failure: Error | null = null

  private async *drain(): AsyncGenerator<Uint8Array> {
    for (;;) {
      if (this.failure) throw this.failure
      const chunk = this.chunks.shift()
      if (chunk) {
        yield chunk
        continue
      }
      if (this.ended) return
      await new Promise<void>((r) => {
        this.wake = r
      })
      this.wake = null
    }
  }
}
