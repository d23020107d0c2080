import { text } from '../i18n'
import { figure } from '../manner'
/** Seconds as "40 min", "3 h 05" or "1.5 d". */
export function duration(seconds: number): string {
  const m = Math.round(seconds / 60)
  if (m < 60) return text('shell.duration.min', { m })
  if (m < 1440) return text('shell.duration.hM', { floor: Math.floor(m / 60), m: Boolean(m % 60), m2: two(m % 60) })
  return `${figure(m / 1440, m % 1440 ? 1 : 0)} d`
}

/** Seconds as a running clock, "4:05" or "1:04:05". */
export function clock(s: number): string {
  return s >= 3600
    ? `${Math.floor(s / 3600)}:${two(Math.floor((s % 3600) / 60))}:${two(s % 60)}`
    : `${Math.floor(s / 60)}:${two(s % 60)}`
}
const two = (n: number): string => String(n).padStart(2, '0')
