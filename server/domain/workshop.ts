import type { z } from 'zod'
import { workshop, type Workshop } from '../../contract/workshop'
import { schoolDefaults } from '../../core/defaults/plan'
import { WorkshopRow } from '../data/models'

const evening = [1, 2, 3, 4, 5].map((weekday) => ({ weekday, from: 18 * 60, to: 21 * 60 + 30 }))
export const WORKSHOP_DEFAULT: Omit<z.input<typeof workshop>, 'version'> = {
  name: 'My workshop',
  currency: 'EUR',
  demo: null,
  temperature: 20,
  humidity: 50,
  schools: schoolDefaults,
  benchHours: [...evening, { weekday: 6, from: 10 * 60, to: 17 * 60 }],
}

export async function readWorkshop(): Promise<Workshop> {
  const [row] = await WorkshopRow.findOrCreate({ where: { id: 1 }, defaults: { id: 1, data: WORKSHOP_DEFAULT } })
  return workshop.parse({ ...row.data, version: row.version })
}
