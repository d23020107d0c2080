import type { Finding } from './finding'
import { rule } from './rule'
import { message } from '../words/message'

/** The air of the room is too cold or too damp to spray in. */
export const airToSpray = rule({
  title: message('findings.sprayRefused.theAirIsSuitableFor'),
  stages: ['plan'],
  inputs: ['sprayRefused'],
  find: ({ sprayRefused }): Finding<never>[] =>
    sprayRefused === null
      ? []
      : [
          {
            id: 'spray',
            level: 'problem',
            value: 0,
            unit: message('findings.sprayRefused.sprayCoatsToday'),
            sentence: sprayRefused,
            places: [],
            how: message('findings.sprayRefused.roomAsSetInThe'),
            fixes: [],
          },
        ],
})
