import bench from './en/bench.json'
import calendar from './en/calendar.json'
import clean from './en/clean.json'
import combine from './en/combine.json'
import composables from './en/composables.json'
import facts from './en/facts.json'
import hollow from './en/hollow.json'
import importing from './en/import.json'
import mixing from './en/mixing.json'
import orient from './en/orient.json'
import paints from './en/paints.json'
import piece from './en/piece.json'
import places from './en/places.json'
import plan from './en/plan.json'
import plates from './en/plates.json'
import pose from './en/pose.json'
import prime from './en/prime.json'
import print from './en/print.json'
import scale from './en/scale.json'
import scheme from './en/scheme.json'
import shell from './en/shell.json'
import stages from './en/stages.json'
import stock from './en/stock.json'
import stores from './en/stores.json'
import viewport from './en/viewport.json'
import workshop from './en/workshop.json'

/** All that the program says in English, by the place that says it; one file a folder of the web. */
export const english = {
  bench,
  calendar,
  clean,
  combine,
  composables,
  facts,
  hollow,
  import: importing,
  mixing,
  orient,
  paints,
  piece,
  places,
  plan,
  plates,
  pose,
  prime,
  print,
  scale,
  scheme,
  shell,
  stages,
  stock,
  stores,
  viewport,
  workshop,
}
export type Catalogue = typeof english

type Leaves<T> = { [K in keyof T & string]: T[K] extends string ? K : `${K}.${Leaves<T[K]>}` }[keyof T & string]
/** Names a message: its file, its component and itself, as "size.cutPanel.leaning". */
export type MessageId = Leaves<Catalogue>
