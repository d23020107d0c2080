import type { DeviceRecord, PlateRecord, RunRecord } from '../../contract/runs'
import { PART, PIECE } from '../stores/fakeServer'
import { PRINTER_ID, RESIN_ID } from './stageTesting'

/** Runs, plates and machines as the server tells of them; for tests. */
export const RUN = '88888888-8888-4888-8888-888888888888',
  PLATE = '77777777-7777-4777-8777-777777777777'
export const hash = (letter: string): string => letter.repeat(64)
const facts = { supportKey: null, tilt: null, finest: null, utilisation: null, tips: 0, box: null, volume: 4000 }
const onPlate = (copy: number, name = 'bust') => ({
  partId: PART,
  name,
  copy,
  mesh: hash('a'),
  x: 0,
  y: 0,
  angle: 0,
  facts: { ...facts, area: 0, supportArea: 0, height: 0, hollow: false, holes: [] },
})
export const still = {
  sent: 0,
  size: 0,
  layer: 0,
  layers: 0,
  seconds: 0,
  left: 0,
  temperature: null,
  vat: null,
  state: '',
  why: null,
  lostAt: null,
}
export const plate = (more: Partial<PlateRecord> = {}): PlateRecord => ({
  id: PLATE,
  runId: RUN,
  number: 1,
  device: null,
  state: 'ended',
  progress: still,
  version: 4,
  startedAt: null,
  endedAt: null,
  printerId: PRINTER_ID,
  printerName: 'Test printer',
  sliceKey: 'slice',
  archive: hash('b'),
  layers: 400,
  layerHeight: 0.1,
  bottomLayers: 4,
  exposure: 2,
  bottomExposure: 20,
  estimate: { seconds: 5400, millilitres: 12, cost: 1 },
  parts: [onPlate(0), onPlate(1)],
  outcomes: [],
  marks: [],
  weighed: null,
  took: null,
  problem: null,
  cleaned: {},
  stops: [],
  ...more,
})
export const run = (plates: PlateRecord[]): RunRecord => ({
  id: RUN,
  pieceId: PIECE,
  number: 3,
  resinId: RESIN_ID,
  resinName: 'Test resin',
  lot: 'L7',
  note: '',
  reprintOf: null,
  plates,
  version: 1,
  createdAt: '2026-11-20T10:00:00Z',
})
export const machine = (more: Partial<DeviceRecord> = {}): DeviceRecord => ({
  serial: 'p1',
  address: 'http://127.0.0.1:1',
  card: {
    kind: 'printer',
    serial: 'p1',
    name: 'By the window',
    standIn: false,
    pixels: [1, 1],
    pitch: [1, 1],
    height: 1,
    vat: 1,
  },
  state: null,
  printerId: PRINTER_ID,
  reachable: true,
  seenAt: '2026-11-20T10:00:00Z',
  ...more,
})
