/**
 * How long hands take at the bench, and how long things are left, where a workshop's own record says nothing yet. All in
 * seconds, of work that is neither hurried nor learned; craft.md 8 to 14 has the order of magnitude, the rest is judgement.
 * What a product's label says (core/plan/materials) and what the log has learned go before them.
 */
const MIN = 60

export const BENCH = {
  /** levelling, filling the vat and starting, and taking off and closing up afterwards */
  print: { attended: 15 * MIN },
  strip: {
    setUp: 4 * MIN,
    /** each tip while green, and cured */
    tip: 8,
    curedTip: 14,
    /** share of tips that tear a pit, and what each costs to mend, on focal skin and elsewhere */
    torn: 0.2,
    curedTorn: 0.5,
    pit: 20,
    focalPit: 60,
    /** a filament part, and each dm² of it */
    filamentPart: 3 * MIN,
    filamentDm2: MIN,
  },
  drain: { handsOn: 2 * MIN, solid: 5 * MIN, hollow: 15 * MIN },
  wash: {
    /** as one step of a plan: set up once, each dm², each hole that is flushed; until it is dry */
    setUp: 6 * MIN,
    dm2: 2 * MIN,
    hole: 3 * MIN,
    dries: 40 * MIN,
    /** as steps of a clean up: each bath, what a clean one takes of a dirty one's time, each hole */
    bath: 2 * MIN,
    rinse: MIN,
    flush: 1.5 * MIN,
    drySolid: 25 * MIN,
    dryHollow: 60 * MIN,
  },
  cure: {
    handsOn: 3 * MIN,
    setUp: 2 * MIN,
    /** inside a hollow part: by a lamp through its hole, or only through the holes */
    inside: 2 * MIN,
    lampInside: 2 * MIN,
    throughHoles: 6 * MIN,
  },
  cast: { setUp: 6 * MIN, millilitre: 4, hardens: 120 * MIN },
  plug: { hole: 4 * MIN, cures: 5 * MIN },
  seam: { setUp: 2 * MIN },
  /** mixing two parts of putty or glue */
  mix: 2 * MIN,
  scars: { pit: 35, cures: 5 * MIN },
  sand: { dries: 60 * MIN, damp: 40 * MIN, lostTexture: 20 * MIN },
  dryFit: { pair: 3 * MIN, tightPair: 12 * MIN },
  pin: { printedHole: 3 * MIN, drilled: 9 * MIN, wandered: 15 * MIN },
  mask: { setUp: 2 * MIN, joint: MIN, /** mm² that are masked in a minute */ area: 600 },
  glue: { joint: 3 * MIN, /** mm² in a second */ area: 40, failed: 25 * MIN },
  prime: {
    setUp: 3 * MIN,
    coat: 1.5 * MIN,
    coatDm2: MIN,
    /** a coat until the next, the last one besides, and a filling one besides */
    dries: 20 * MIN,
    last: 10 * MIN,
    fillerDries: 120 * MIN,
  },
  inspect: { pass: 4 * MIN, dm2: 3 * MIN },
  seal: { setUp: 4 * MIN },
  coat: { washDries: 60 * MIN, /** set up, mixed and cleaned up once */ airbrush: 3 * MIN, brush: MIN },
  varnish: {
    /** while there is no scheme: all matt, or each region its own */
    matt: 8 * MIN,
    byRegion: 14 * MIN,
    dm2: 2 * MIN,
    /** one pass of a region: set up, each dm² by either tool */
    pass: 3 * MIN,
    sprayedDm2: 2 * MIN,
    brushedDm2: 8 * MIN,
    powder: 6 * MIN,
    spraySetUp: 5 * MIN,
    brushSetUp: MIN,
    dulled: 30 * MIN,
    crept: 20 * MIN,
    /** until it may be handled */
    cures: 24 * 60 * MIN,
  },
  /** modelling again what is missing: the start, and each mm of it */
  remodel: { setUp: 10 * MIN, mm: 30 },
} as const
