import { text } from '../../i18n'
/** By their number, 0 Sunday. */
export const DAYS = [
  text('workshop.days.sunday'),
  text('workshop.days.monday'),
  text('workshop.days.tuesday'),
  text('workshop.days.wednesday'),
  text('workshop.days.thursday'),
  text('workshop.days.friday'),
  text('workshop.days.saturday'),
]
