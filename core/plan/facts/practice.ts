import type { Caution } from '../materials/cautions'

/** Exercises on a failed print or the practice body: what is done, and by what one sees that it went well. */
export const EXERCISES = [
  {
    id: 'blend',
    name: 'A blend from shade to light',
    where: 'the half ball',
    does: [
      'Two coats of the base tone, each dry.',
      'Mix five steps from shade to light in a palette, a drop more each time.',
      'Paint each step where the one before ends, thinned like milk; then a glaze of the middle tone over all.',
    ],
    look: ['No step shows at arm’s length.', 'The lightest place is where the light comes from, not at the top.'],
    cautions: [],
  },
  {
    id: 'folds',
    name: 'Light and shade on cloth',
    where: 'the folds',
    does: [
      'Base, then shade into the valleys with a glaze, pulled toward the deepest place.',
      'Light along the ridges, thinner toward their ends.',
    ],
    look: ['No light tone is in the valleys.', 'All ridges are lit from the same side.'],
    cautions: [],
  },
  {
    id: 'dryBrush',
    name: 'Dry brushing',
    where: 'the ribs',
    does: [
      'Wipe the brush on paper until it leaves almost nothing.',
      'Stroke across the ribs, from the finest to the coarsest, twice lightly rather than once hard.',
    ],
    look: ['The finest ribs show, the floor between them is clean.', 'No streaks, no chalk.'],
    cautions: ['dust'],
  },
  {
    id: 'wash',
    name: 'A wash in recesses',
    where: 'the grooves',
    does: ['Flood one groove at a time.', 'Remove what is on the flat with a clean damp brush before it dries.'],
    look: ['The groove is dark to its end, the flat beside it clean.', 'No ring where it dried.'],
    cautions: [],
  },
  {
    id: 'eyes',
    name: 'A pair of eyes',
    where: 'the two balls under lids',
    does: [
      'Off-white ball, dark ring cut by the upper lid, iris lighter below, pupil, one catch-light on the same side in both.',
      'The thin dark upper lid last.',
    ],
    look: ['Both look at one point: cover one, then the other.', 'The white does not glare.'],
    cautions: [],
  },
  {
    id: 'gloss',
    name: 'Gloss over metal, matt beside it',
    where: 'the small bead and the plate round it',
    does: [
      'Black, then metal on the bead; gloss on it, dry.',
      'Mask it with putty, mist matt over the plate, remove the putty at once.',
    ],
    look: ['The metal has not dulled.', 'The edge between gloss and matt is as sharp as the mask was.'],
    cautions: ['spray'],
  },
] as const satisfies readonly {
  id: string
  name: string
  where: string
  does: readonly string[]
  look: readonly string[]
  cautions: readonly Caution[]
}[]
