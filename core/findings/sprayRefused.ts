import type { Finding } from './finding'
import { rule } from './rule'

/** The air of the room is too cold or too damp to spray in. */
export const airToSpray = rule({
  title: 'the air is suitable for spraying',
  stages: ['plan'],
  inputs: ['sprayRefused'],
  find: ({ sprayRefused }): Finding<never>[] =>
    sprayRefused === null
      ? []
      : [
          {
            id: 'spray',
            level: 'problem',
            value: '0',
            unit: 'spray coats today',
            sentence: sprayRefused,
            places: [],
            how: 'Room as set in the workshop.',
            fixes: [],
          },
        ],
})
