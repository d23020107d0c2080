import { z } from 'zod'
import { deviceCard } from './devices'
import { said } from '../core/schemas/reports'

const triple = z.tuple([z.number(), z.number(), z.number()])
const hash = z.string().regex(/^[0-9a-f]{64}$/)

export const device = z.object({
  serial: z.string(),
  address: z.string(),
  card: deviceCard,
  /** as it last said; null before it said anything */
  state: z.record(z.string(), z.unknown()).nullable(),
  /** the printer of the stock that it is */
  printerId: z.uuid().nullable(),
  reachable: z.boolean(),
  seenAt: z.string(),
})
export type DeviceRecord = z.infer<typeof device>

/** What one sees wrong with a part. */
export const MARK_KINDS = ['missing', 'loose', 'torn', 'ragged', 'line', 'warped', 'notStuck'] as const
export const mark = z.object({
  id: z.string().max(40),
  partId: z.uuid(),
  copy: z.int().min(0).max(200),
  kind: z.enum(MARK_KINDS),
  point: triple.describe('on the part as it stands supported, mm'),
  note: z.string().max(2000).default(''),
  reach: z
    .tuple([z.number(), z.number()])
    .nullable()
    .default(null)
    .describe('heights between which something is missing, mm from the plate'),
})
export type Mark = z.infer<typeof mark>
export const outcome = z.object({
  partId: z.uuid(),
  copy: z.int().min(0).max(200),
  result: z.enum(['good', 'usable', 'failed']),
})
export type Outcome = z.infer<typeof outcome>

export const platePart = z.object({
  partId: z.uuid(),
  name: z.string().max(120),
  copy: z.int().min(0).max(200),
  mesh: hash.describe('with its supports, as printed'),
  x: z.number(),
  y: z.number(),
  angle: z.number(),
})
export const newPlate = z.object({
  printerId: z.uuid(),
  sliceKey: z.string().max(80).describe('of the slice derivation'),
  parts: z.array(platePart).min(1).max(1000),
})
export const newRun = z.object({
  resinId: z.uuid(),
  lot: z.string().trim().max(80).default(''),
  note: z.string().max(4000).default(''),
  reprintOf: z.uuid().nullable().default(null),
  plates: z.array(newPlate).min(1).max(60),
})

/** How a part was printed, as far as it tells prints that fail from prints that do not. */
export const partFacts = z.object({
  supportKey: z.string().nullable(),
  /** degrees between its own up and the printer's */
  tilt: z.number().nullable(),
  /** finest tip on it, and how hard the worst was worked */
  finest: z.enum(['whisker', 'strut', 'post']).nullable(),
  utilisation: z.number().nullable(),
  tips: z.int(),
  /** mm, least and greatest x and y of it with its supports; mm³ */
  box: z.tuple([z.number(), z.number(), z.number(), z.number()]).nullable(),
  volume: z.number().nullable(),
  /** mm² of its own skin, cavities included; mm; mm across each hole */
  area: z.number().default(0),
  supportArea: z.number().default(0),
  height: z.number().default(0),
  hollow: z.boolean().default(false),
  holes: z.array(z.number()).max(64).default([]),
})
export const plateProgress = z.object({
  /** bytes sent, and in all */
  sent: z.number().default(0),
  size: z.number().default(0),
  layer: z.int().default(0),
  layers: z.int().default(0),
  seconds: z.number().default(0),
  left: z.number().default(0),
  temperature: z.number().nullable().default(null),
  vat: z.number().nullable().default(null),
  /** what the device says it does, and why it does not go on */
  state: z.string().default(''),
  why: z.string().nullable().default(null),
  /** since when it has not answered */
  lostAt: z.string().nullable().default(null),
})
export const plateData = z.object({
  printerId: z.uuid(),
  printerName: z.string(),
  sliceKey: z.string(),
  archive: hash,
  layers: z.int(),
  layerHeight: z.number(),
  bottomLayers: z.int(),
  exposure: z.number(),
  bottomExposure: z.number(),
  estimate: z.object({ seconds: z.number(), millilitres: z.number(), cost: z.number() }),
  parts: z.array(platePart.extend({ facts: partFacts })),
  outcomes: z.array(outcome).default([]),
  marks: z.array(mark).max(500).default([]),
  /** g, of all that came off */
  weighed: z.number().nullable().default(null),
  /** machine time it took, s */
  took: z.number().nullable().default(null),
  problem: said.nullable().default(null),
  /** when each step of its clean up was done */
  cleaned: z.record(z.string().max(20), z.string()).default({}),
  /** where it stood still */
  stops: z
    .array(z.object({ layer: z.int(), why: z.string() }))
    .max(1000)
    .default([]),
})
export const PLATE_STATES = ['planned', 'sending', 'printing', 'ended', 'judged'] as const
export const plate = plateData.extend({
  id: z.uuid(),
  runId: z.uuid(),
  number: z.int(),
  device: z.string().nullable(),
  state: z.enum(PLATE_STATES),
  progress: plateProgress,
  version: z.int(),
  startedAt: z.string().nullable(),
  endedAt: z.string().nullable(),
})
export type PlateRecord = z.infer<typeof plate>
export const runData = z.object({
  resinId: z.uuid(),
  resinName: z.string(),
  lot: z.string(),
  note: z.string(),
  reprintOf: z.uuid().nullable(),
})
export const run = runData.extend({
  id: z.uuid(),
  pieceId: z.uuid(),
  number: z.int(),
  plates: z.array(plate),
  version: z.int(),
  createdAt: z.string(),
})
export type RunRecord = z.infer<typeof run>
export const judged = z.object({
  version: z.int(),
  outcomes: z.array(outcome).max(1000),
  marks: z.array(mark).max(500),
  weighed: z.number().min(0).max(100_000).nullable().default(null),
})

export const cleanStep = z.object({
  key: z.string(),
  title: z.string(),
  why: z.string(),
  handsOn: z.number(),
  wait: z.number(),
  program: z.enum(['wash', 'dry', 'cure']).nullable(),
  materials: z.array(z.string()),
  cautions: z.array(z.string()),
  doneAt: z.string().nullable(),
})
export type CleanStepRecord = z.infer<typeof cleanStep>
/** ml that it carries into each bath. */
export const cleaning = z.object({ steps: z.array(cleanStep), first: z.number(), second: z.number() })
export type Cleaning = z.infer<typeof cleaning>

const rate = z.object({
  by: z.enum(['printer', 'resin', 'tilt', 'tips']),
  what: z.string(),
  parts: z.int(),
  good: z.int(),
  rate: z.number(),
  low: z.number(),
  high: z.number(),
})
const timeFit = z.object({
  printerId: z.uuid(),
  name: z.string(),
  prints: z.int(),
  /** s a layer: as the stock has it, and as the prints took */
  now: z.number(),
  motion: z.number(),
  before: z.number(),
  after: z.number(),
})
export const record = z.object({ rates: z.array(rate), times: z.array(timeFit), plates: z.int() })
export type PrintRecord = z.infer<typeof record>
