import type { DeviceCard, JobStatus, PlateSeen } from '../../contract/devices'
import { say, type Said } from '../../core/words/say'

export interface At {
  address: string
}
export interface Found extends At {
  card: DeviceCard
}
/** Bytes that a device is sent, from any place on. */
export interface Job {
  id: string
  size: number
  read: (from: number) => AsyncIterable<Uint8Array>
}
/**
 * What Undercut asks of a device, whatever it speaks. Every call rejects with a `DeviceTrouble`: offline, or refused with the
 * device's own sentence.
 */
export interface DeviceAdapter {
  /** Those of the addresses at which a device answers. */
  discover(addresses: readonly string[]): Promise<Found[]>
  /** As it stands now. */
  state(device: At): Promise<Record<string, unknown>>
  /** Sends a job, from where it has come to; gives what the device's check says. */
  send(device: At, job: Job, progress: (sent: number) => void, signal: AbortSignal): Promise<JobStatus>
  /** A printer: the job; a station: `{ program, seconds }`. Also goes on after a power cut. */
  start(device: At, what: { job: string } | { program: string; seconds: number }): Promise<void>
  pause(device: At): Promise<void>
  resume(device: At): Promise<void>
  stop(device: At): Promise<void>
  /** Tells of each state that differs from the one before, until the signal says enough; `null` while it does not answer. */
  watch(device: At, tell: (state: Record<string, unknown> | null) => Promise<void>, signal: AbortSignal): Promise<void>
  /** What only some devices can do: told apart by name. */
  also(device: At, what: 'refill' | 'clear' | 'settings' | 'load' | 'tare' | 'air', body?: object): Promise<void>
  look(device: At, job: string): Promise<PlateSeen>
}

export class DeviceTrouble extends Error {
  constructor(
    readonly kind: 'offline' | 'refused',
    readonly code: string,
    /** the device's own sentence, or a message */
    readonly said: Said,
    readonly extra: Record<string, unknown> = {},
  ) {
    super(say(said))
  }
}
