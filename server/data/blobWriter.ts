import { Zip, ZipPassThrough } from 'fflate'
import { putStream } from './blobs'

/** Bytes that are stored while they are being made: they go in, chunks go to the blob store, nothing piles up. */
export class BlobWriter {
  private readonly chunks: Uint8Array[] = []
  private wake: (() => void) | null = null
  private ended = false
  private failure: Error | null = null
  /** settles with the hash when `finish` was called and the last byte is stored */
  readonly stored: Promise<{ hash: string; size: number }>

  constructor() {
    this.stored = putStream(this.drain())
    this.stored.catch(() => undefined)
  }

  push(chunk: Uint8Array, final = false): void {
    if (chunk.length > 0) this.chunks.push(chunk)
    if (final) this.ended = true
    this.wake?.()
  }

  finish(): Promise<{ hash: string; size: number }> {
    this.push(new Uint8Array(0), true)
    return this.stored
  }

  /** Gives up: what was stored so far is removed. */
  abandon(reason: Error): void {
    this.failure = reason
    this.wake?.()
  }

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

/** A zip of files, likewise. */
export class ZipWriter extends BlobWriter {
  private readonly zip = new Zip((error, chunk, final) => {
    if (error) throw error
    this.push(chunk, final)
  })

  add(name: string, bytes: Uint8Array): void {
    // PNGs are deflated already: they are stored as they are.
    const entry = new ZipPassThrough(name)
    this.zip.add(entry)
    entry.push(bytes, true)
  }

  override finish(): Promise<{ hash: string; size: number }> {
    this.zip.end()
    return this.stored
  }
}
