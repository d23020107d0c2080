import { z } from 'zod'

/** The open device protocol: JSON over HTTP, docs/devices.md. Machine time in s, lengths in mm, resin in ml. */
const named = {
  serial: z.string().min(1).max(80),
  name: z.string().min(1).max(80),
  standIn: z.boolean().default(false),
}
export const deviceCard = z.discriminatedUnion('kind', [
  z.object({
    kind: z.literal('printer'),
    ...named,
    pixels: z.tuple([z.int(), z.int()]),
    pitch: z.tuple([z.number(), z.number()]),
    height: z.number(),
    vat: z.number().describe('ml it holds'),
  }),
  z.object({ kind: z.literal('station'), ...named, programs: z.array(z.enum(['wash', 'dry', 'cure'])) }),
  z.object({ kind: z.literal('scale'), ...named, division: z.number().describe('g') }),
  z.object({ kind: z.literal('sensor'), ...named }),
])
export type DeviceCard = z.infer<typeof deviceCard>

export const printerState = z.object({
  state: z.enum(['idle', 'receiving', 'ready', 'printing', 'paused', 'interrupted', 'finished', 'stopped']),
  /** why it paused or was interrupted */
  why: z.enum(['vat-empty', 'power', 'asked']).nullable(),
  job: z.string().nullable(),
  layer: z.int(),
  layers: z.int(),
  seconds: z.number().describe('machine time so far'),
  left: z.number(),
  temperature: z.number().describe('°C of the resin'),
  vat: z.number().describe('ml in it'),
  /** whether the last print was taken off */
  clear: z.boolean(),
  speedUp: z.number(),
})
export type PrinterState = z.infer<typeof printerState>
export const stationState = z.object({
  state: z.enum(['idle', 'running', 'paused', 'finished']),
  program: z.enum(['wash', 'dry', 'cure']).nullable(),
  seconds: z.number(),
  left: z.number(),
  temperature: z.number(),
})
export type StationState = z.infer<typeof stationState>
export const scaleState = z.object({ grams: z.number(), stable: z.boolean(), loaded: z.boolean() })
export type ScaleState = z.infer<typeof scaleState>

export const openAir = z.object({
  temperature: z.number().min(-60).max(60).describe('°C'),
  humidity: z.number().min(0).max(100).describe('%, relative'),
})
export type OpenAir = z.infer<typeof openAir>
const airHour = z.object({ at: z.number().describe('ms since the epoch at which the hour begins'), open: openAir })
export type AirHour = z.infer<typeof airHour>
export const sensorState = openAir.extend({ open: openAir, forecast: z.array(airHour).max(400) })
export type SensorState = z.infer<typeof sensorState>

/** How far a job has come into the printer, and what its check said. */
export const jobStatus = z.object({
  received: z.int(),
  total: z.int(),
  ready: z.object({ layers: z.int(), seconds: z.number(), millilitres: z.number() }).nullable(),
  problem: z.object({ code: z.string(), message: z.string() }).nullable(),
})
export type JobStatus = z.infer<typeof jobStatus>

const place = { layer: z.int(), x: z.number(), y: z.number(), z: z.number() }
/** What is on the plate when one looks: only a simulated printer can tell. Places in mm from the plate's middle. */
export const plateSeen = z.object({
  mishaps: z.array(
    z.discriminatedUnion('kind', [
      z.object({ kind: z.literal('island'), ...place, area: z.number() }),
      z.object({ kind: z.literal('tip'), ...place, force: z.number(), capacity: z.number(), fell: z.boolean() }),
      z.object({ kind: z.literal('cup'), ...place, area: z.number(), force: z.number(), wall: z.number() }),
    ]),
  ),
  losses: z.array(
    z.object({
      mishap: z.int(),
      firstLayer: z.int(),
      lastLayer: z.int(),
      volume: z.number().describe('mm³'),
      box: z.tuple([z.number(), z.number(), z.number(), z.number()]),
    }),
  ),
  printed: z.number().describe('mm³'),
  meant: z.number().describe('mm³'),
  layers: z.int().describe('printed before it ended'),
  grams: z.number(),
})
export type PlateSeen = z.infer<typeof plateSeen>
