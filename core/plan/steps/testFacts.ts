import { ORDER_COSTS } from '../../defaults/paint'
import { ADHESIVES, FILLERS } from '../materials/materials'
import { schoolDefaults } from '../../defaults/plan'
import type { PlanFacts, PlanJoint, PlanPart } from './types'

/** Facts of a made-up piece for tests and the benchmark, each changed where it matters. */
export const part = (id: string, more: Partial<PlanPart> = {}): PlanPart => ({
  id,
  name: id,
  hollow: false,
  holes: [],
  scars: [{ tip: 0.5, count: 20, focal: 2 }],
  area: 20_000,
  height: 120,
  clear: false,
  process: 'resin',
  cusps: { p50: 25, p90: 45, stepped: 18_000, flat: 2000 },
  access: { area: 20_000, brush: 19_500, airbrush: 17_000, brushLost: 0, airbrushLost: 0 },
  ...more,
})
export const joint = (a: string, b: string, more: Partial<PlanJoint> = {}): PlanJoint => ({
  key: `${a}+${b}`,
  a: { id: a, name: a },
  b: { id: b, name: b },
  fit: {
    p5: 0.05,
    p50: 0.1,
    p95: 0.2,
    overlap: 0,
    area: 300,
    seam: 60,
    seamGaps: [
      { upTo: 0.1, length: 40, volume: 3 },
      { upTo: 1, length: 20, volume: 30 },
    ],
  },
  load: null,
  fixed: false,
  middle: null,
  surface: null,
  mixed: false,
  tried: null,
  access: [
    { area: 20_000, brush: 19_500, airbrush: 17_000, brushLost: 20, airbrushLost: 60 },
    { area: 20_000, brush: 19_500, airbrush: 17_000, brushLost: 0, airbrushLost: 0 },
  ],
  ...more,
})
export const facts = (more: Partial<PlanFacts> = {}): PlanFacts => ({
  parts: [part('body'), part('arm')],
  joints: [joint('body', 'arm')],
  prints: [],
  running: [],
  layerHeight: 0.05,
  finish: 'display',
  schools: schoolDefaults,
  orderCosts: ORDER_COSTS,
  room: { temperature: 20, humidity: 50 },
  fillers: FILLERS,
  adhesives: ADHESIVES,
  without: [],
  hurried: false,
  inspection: null,
  surfaces: [{ surface: 'skin', names: ['Face'], area: 40_000 }],
  varnish: 'matt',
  finishes: [],
  unprimed: [],
  tint: '#7a5a40',
  effects: [],
  coats: [
    {
      region: 'Coat',
      technique: 'base',
      paint: 'Wool navy',
      mix: [{ id: 'navy', share: 1 }],
      coats: 2,
      area: 20_000,
      byAirbrush: false,
    },
  ],
  ...more,
})
