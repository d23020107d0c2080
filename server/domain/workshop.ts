import { now } from '../data/clock'
import type { z } from 'zod'
import { workshop, type Workshop } from '../../contract/workshop'
import { schoolDefaults } from '../../core/defaults/plan'
import { dueAt } from '../../core/math/wallClock'
import { WorkshopRow } from '../data/models'
import { message } from '../../core/words/message'
import { say } from '../../core/words/say'

const evening = [1, 2, 3, 4, 5].map((weekday) => ({ weekday, from: 18 * 60, to: 21 * 60 + 30 }))
export const WORKSHOP_DEFAULT: Omit<z.input<typeof workshop>, 'version'> = {
  name: say(message('names.workshop')),
  currency: 'EUR',
  demo: null,
  temperature: 20,
  humidity: 50,
  schools: schoolDefaults,
  benchHours: [...evening, { weekday: 6, from: 10 * 60, to: 17 * 60 }],
}

export async function readWorkshop(): Promise<Workshop> {
  const [row] = await WorkshopRow.findOrCreate({ where: { id: 1 }, defaults: { id: 1, data: WORKSHOP_DEFAULT } })
  const shop = workshop.parse({ ...row.data, version: row.version })
  return { ...shop, zone: zoneOf(shop) }
}

/** Zone of the clock on the workshop's wall: the one that was set, or the server's own. */
export const zoneOf = (shop: Workshop): string => shop.timeZone ?? new Intl.DateTimeFormat().resolvedOptions().timeZone

/** ms before its end at which a piece counts as due soon; judgement */
const SOON = 2 * 86_400_000
export const hurriedFrom = (deadline: string, zone: string): number => dueAt(deadline, zone) - SOON
export const isHurried = (deadline: string, zone: string): boolean => now() >= hurriedFrom(deadline, zone)
