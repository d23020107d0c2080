import bench from './en/bench.json' with { type: 'json' }
import calendar from './en/calendar.json' with { type: 'json' }
import clean from './en/clean.json' with { type: 'json' }
import cli from './en/cli.json' with { type: 'json' }
import combine from './en/combine.json' with { type: 'json' }
import composables from './en/composables.json' with { type: 'json' }
import facts from './en/facts.json' with { type: 'json' }
import findings from './en/findings.json' with { type: 'json' }
import forms from './en/forms.json' with { type: 'json' }
import hollow from './en/hollow.json' with { type: 'json' }
import importing from './en/import.json' with { type: 'json' }
import mixing from './en/mixing.json' with { type: 'json' }
import names from './en/names.json' with { type: 'json' }
import operations from './en/operations.json' with { type: 'json' }
import orient from './en/orient.json' with { type: 'json' }
import painting from './en/painting.json' with { type: 'json' }
import paints from './en/paints.json' with { type: 'json' }
import piece from './en/piece.json' with { type: 'json' }
import places from './en/places.json' with { type: 'json' }
import plan from './en/plan.json' with { type: 'json' }
import plates from './en/plates.json' with { type: 'json' }
import pose from './en/pose.json' with { type: 'json' }
import prints from './en/prints.json' with { type: 'json' }
import problems from './en/problems.json' with { type: 'json' }
import refusals from './en/refusals.json' with { type: 'json' }
import prime from './en/prime.json' with { type: 'json' }
import print from './en/print.json' with { type: 'json' }
import scale from './en/scale.json' with { type: 'json' }
import scheme from './en/scheme.json' with { type: 'json' }
import shell from './en/shell.json' with { type: 'json' }
import stages from './en/stages.json' with { type: 'json' }
import steps from './en/steps.json' with { type: 'json' }
import stock from './en/stock.json' with { type: 'json' }
import stores from './en/stores.json' with { type: 'json' }
import supplies from './en/supplies.json' with { type: 'json' }
import viewport from './en/viewport.json' with { type: 'json' }
import vocabulary from './en/vocabulary.json' with { type: 'json' }
import workshop from './en/workshop.json' with { type: 'json' }

/** All that the program says in English, by the place that says it; one file a folder of the web. */
export const english = {
  bench,
  calendar,
  clean,
  cli,
  combine,
  composables,
  facts,
  findings,
  forms,
  hollow,
  import: importing,
  mixing,
  names,
  operations,
  orient,
  painting,
  paints,
  piece,
  places,
  plan,
  plates,
  pose,
  prime,
  print,
  prints,
  problems,
  refusals,
  scale,
  scheme,
  shell,
  stages,
  steps,
  stock,
  stores,
  supplies,
  viewport,
  vocabulary,
  workshop,
}
export type Catalogue = typeof english

type Leaves<T> = { [K in keyof T & string]: T[K] extends string ? K : `${K}.${Leaves<T[K]>}` }[keyof T & string]
/** Names a message: its file, its component and itself, as "size.cutPanel.leaning". */
export type MessageId = Leaves<Catalogue>
