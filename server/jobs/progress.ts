/**
 * Writes the progress of one job: the newest value, one write at a time, none after the end. A write that fails is left
 * out; the next one says more.
 */
export class ProgressWriter {
  private newest: number | null = null
  private writing: Promise<void> | null = null
  private ended = false

  /** @param write stores and announces a fraction, 0 to 1 */
  constructor(private readonly write: (fraction: number) => Promise<void>) {}

  note(fraction: number): void {
    if (this.ended) return
    this.newest = fraction
    this.writing ??= this.flush()
  }
  /** Waits for the write that is under way. After it nothing is written any more. */
  async end(): Promise<void> {
    this.ended = true
    await this.writing
  }
  private async flush(): Promise<void> {
    while (this.newest !== null && !this.ended) {
      const fraction = this.newest
      this.newest = null
      await this.write(fraction).catch(() => undefined)
    }
    this.writing = null
  }
}
