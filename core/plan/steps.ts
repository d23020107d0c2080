import type { Caution } from './cautions'
import { waitingIn, type Room, type Setting } from './drying'
import type { FinishLevel, Schools } from './schools'

export type Phase = 'Clean' | 'Fit' | 'Prime' | 'Paint' | 'Finish'
export type Resource = 'bench' | 'airbrush' | 'curing lamp'

export interface PlanStep {
  /** stable between plans of the same piece, so that what is ticked stays ticked */
  key: string
  phase: Phase
  title: string
  why: string
  /** s of hands-on work */
  handsOn: number
  /** s until the next step may begin */
  waiting: number
  needs: Resource
  cautions: Caution[]
  /** keys of steps that must be over, waiting included */
  after: string[]
  /** what to have at hand, with quantities */
  materials: string[]
}

/** What the plan is made from: measured or chosen, never guessed here. */
export interface PlanFacts {
  parts: {
    name: string
    hollow: boolean
    holes: number
    /** ml of casting resin that its cavities take, where they are to be cast full */
    cast?: number
    tips: number
    /** mm² */ area: number
    /** mm */ height: number
    clear: boolean
  }[]
  layerHeight: number
  finish: FinishLevel
  schools: Schools
  room: Room
  /** coats in painting order */
  coats: {
    region: string
    technique: string
    paint: string
    coats: number
    /** mm² */ area: number
    byAirbrush: boolean
  }[]
  varnish: 'matt' | 'satin' | 'gloss'
}

const MIN = 60
const DM2 = 10_000

/** The bench plan of a piece: clean up, fit, fill, sand, prime, inspect, paint and varnish, each with its reason. */
export function planSteps(facts: PlanFacts): PlanStep[] {
  const steps: PlanStep[] = []
  const { schools: s, room } = facts
  let last: string[] = []
  const add = (
    step: Omit<PlanStep, 'after' | 'waiting'> & { wait?: number; setting?: Setting; after?: string[] },
  ): string => {
    const { wait = 0, setting = 'none', after = last, ...rest } = step
    steps.push({ ...rest, waiting: Math.round(waitingIn(room, wait, setting)), after })
    last = [step.key]
    return step.key
  }
  const area = facts.parts.reduce((a, p) => a + p.area, 0)
  const tips = facts.parts.reduce((a, p) => a + p.tips, 0)
  const many = facts.parts.length > 1
  const hollow = facts.parts.filter((p) => p.hollow)
  const tallest = Math.max(...facts.parts.map((p) => p.height))
  const dm2 = area / DM2
  const fine = facts.finish === 'shelf' ? 0.6 : facts.finish === 'display' ? 1 : 1.6

  const strip = (): void => {
    if (tips === 0) return
    add({
      key: 'strip',
      phase: 'Clean',
      title: 'Take the supports off',
      why: `${tips} tips hold it${s.strip === 'afterCure' ? '; cured tips break hard and leave deeper scars' : '; green tips come away with warm water'}.`,
      handsOn: 4 * MIN + tips * (s.strip === 'afterCure' ? 14 : 8),
      needs: 'bench',
      cautions: ['resin', 'blade'],
      materials: ['flush cutters', 'warm water'],
    })
  }
  if (s.strip === 'beforeWash') strip()
  add({
    key: 'wash',
    phase: 'Clean',
    title: hollow.length > 0 ? 'Wash in two baths and flush every cavity' : 'Wash in two baths',
    why:
      hollow.length > 0
        ? `${hollow.map((p) => p.name).join(', ')} ${hollow.length > 1 ? 'are' : 'is'} hollow: what stays inside weeps out or splits the wall later.`
        : 'Uncured film left on the skin turns tacky and milky under primer.',
    handsOn: 6 * MIN + 2 * MIN * dm2 + 3 * MIN * hollow.reduce((a, p) => a + p.holes, 0),
    wait: 40 * MIN,
    setting: 'evaporation',
    needs: 'bench',
    cautions: ['resin', 'solvent'],
    materials: [`wash liquid, dirty bath then clean`, ...(hollow.length > 0 ? ['syringe'] : [])],
  })
  if (s.strip === 'afterWash') strip()
  const clear = facts.parts.some((p) => p.clear)
  const cure = Math.min(10, Math.max(2, 2 + tallest / 40))
  add({
    key: 'cure',
    phase: 'Clean',
    title: 'Cure, turning it once',
    why: `${cure.toFixed(0)} minutes for ${tallest.toFixed(0)} mm${clear ? '; clear parts at most 2, or they yellow' : ''}${hollow.length > 0 ? '; light the inside through the holes' : ''}.`,
    handsOn: 3 * MIN,
    wait: cure * MIN,
    needs: 'curing lamp',
    cautions: ['uv', 'resin'],
    materials: ['curing lamp'],
  })
  if (s.strip === 'afterCure') strip()

  if (many) {
    add({
      key: 'dryfit',
      phase: 'Fit',
      title: 'Dry fit every pair',
      why: 'Nothing is glued before everything fits.',
      handsOn: 5 * MIN * facts.parts.length,
      needs: 'bench',
      cautions: [],
      materials: [],
    })
    if (s.joints !== 'glueOnly')
      add({
        key: 'pin',
        phase: 'Fit',
        title: s.joints === 'pinAll' ? 'Drill and pin every joint' : 'Drill and pin the joints that bear load',
        why: 'Glue holds in shear and fails in peel; wire takes the bending.',
        handsOn: 9 * MIN * (facts.parts.length - 1),
        needs: 'bench',
        cautions: ['blade', 'dust'],
        materials: ['brass wire', 'drills'],
      })
    if (s.gluing === 'assembleFirst')
      add({
        key: 'glue',
        phase: 'Fit',
        title: 'Glue it together',
        why: 'Seams that must vanish are glued before paint.',
        handsOn: 5 * MIN * (facts.parts.length - 1),
        wait: 30 * MIN,
        setting: 'reaction',
        needs: 'bench',
        cautions: ['putty'],
        materials: ['epoxy adhesive, 5 min'],
      })
  }
  const cast = facts.parts.reduce((a, p) => a + (p.cast ?? 0), 0)
  if (cast > 0)
    add({
      key: 'cast',
      phase: 'Fit',
      title: `Cast ${facts.parts.filter((p) => p.cast).length > 1 ? 'the cavities' : 'the cavity'} full`,
      why: `${cast.toFixed(0)} ml for weight and against warping. In layers: casting resin heats itself, and a hot wall softens.`,
      handsOn: 6 * MIN + cast * 4,
      wait: 120 * MIN,
      setting: 'reaction',
      needs: 'bench',
      cautions: ['casting'],
      materials: [`casting resin, ${cast.toFixed(0)} ml`, 'syringe or funnel', 'tape over the lower holes'],
    })
  const holes = facts.parts.reduce((a, p) => a + p.holes, 0)
  if (holes > 0)
    add({
      key: 'plug',
      phase: 'Fit',
      title: `Close ${holes} drain ${holes > 1 ? 'holes' : 'hole'}`,
      why: 'After the cure nothing more comes out; a closed cavity keeps dust and damp out.',
      handsOn: 4 * MIN * holes,
      wait: 5 * MIN,
      needs: 'bench',
      cautions: ['resin', 'uv'],
      materials: ['UV putty'],
    })
  if (tips > 0)
    add({
      key: 'fill',
      phase: 'Fit',
      title: 'Fill tip pits',
      why: `About one tip in five leaves a pit: ${Math.ceil(tips / 5)} to look for.`,
      handsOn: 2 * MIN + Math.ceil(tips / 5) * 35,
      wait: 5 * MIN,
      needs: 'bench',
      cautions: ['resin', 'uv'],
      materials: ['printing resin as filler', 'UV torch'],
    })
  const wet = s.sanding === 'wet'
  // The ladder starts where the step height asks and never jumps by more than about two.
  const ladder = (
    facts.layerHeight > 0.06 ? [180, 240, 320, 400] : facts.layerHeight > 0.04 ? [240, 320, 400, 600] : [320, 400, 600]
  ).concat(facts.finish === 'exhibition' ? [800] : [])
  add({
    key: 'sand',
    phase: 'Fit',
    title: `Sand ${wet ? 'wet' : 'dry'}: ${ladder.join(', ')}`,
    why: `Layers of ${facts.layerHeight} mm leave steps up to ${Math.round(facts.layerHeight * 1000)} µm where the skin lies flat; ${tips} tip scars.`,
    handsOn: fine * (5 * MIN + dm2 * 7 * MIN + tips * 12) * (wet ? 1.15 : 1),
    wait: wet ? 60 * MIN : 0,
    setting: 'evaporation',
    needs: 'bench',
    cautions: ['dust'],
    materials: ladder.map((g) => `grit ${g}`),
  })

  const passes = facts.finish === 'shelf' ? 1 : facts.finish === 'display' ? 2 : 3
  const colour = s.undercoat === 'zenithal' ? 'black' : s.undercoat
  for (let pass = 1; pass <= passes; pass++) {
    add({
      key: `prime-${pass}`,
      phase: 'Prime',
      title: `Prime ${colour}, pass ${pass} of ${passes}`,
      why: pass === 1 ? 'Primer shows what bare resin hid.' : 'The pass before was sanded where flaws were mended.',
      handsOn: 5 * MIN + dm2 * 1.5 * MIN,
      wait: 30 * MIN,
      setting: 'evaporation',
      needs: 'airbrush',
      cautions: ['spray'],
      materials: [`primer, ${colour}: ${((area * 0.015 * 2) / 1000 / 0.25).toFixed(1)} ml in the can`],
    })
    add({
      key: `inspect-${pass}`,
      phase: 'Prime',
      title: `Inspect under raking light, mend, pass ${pass}`,
      why: 'A pass that finds nothing ends the loop.',
      handsOn: fine * (4 * MIN + dm2 * 3 * MIN),
      needs: 'bench',
      cautions: ['dust'],
      materials: ['raking light', 'solvent putty', 'grit 600'],
    })
  }
  if (s.undercoat === 'zenithal')
    add({
      key: 'zenithal',
      phase: 'Prime',
      title: 'Spray white from above',
      why: 'Light and shade stand on the sculpt before the first colour.',
      handsOn: 6 * MIN,
      wait: 20 * MIN,
      setting: 'evaporation',
      needs: 'airbrush',
      cautions: ['spray'],
      materials: ['primer, white'],
    })

  facts.coats.forEach((c, i) => {
    const each = Math.max(3 * MIN, (c.area / DM2) * (c.byAirbrush ? 3 : 11) * MIN * fine)
    add({
      key: `coat-${i}-${c.region}-${c.technique}`,
      phase: 'Paint',
      title: `${c.region}: ${c.technique}, ${c.paint}${c.coats > 1 ? `, ${c.coats} coats` : ''}`,
      why:
        c.coats > 1
          ? `${c.coats} thin coats hide what lies below; one thick one drowns detail.`
          : 'One pass by the scheme.',
      handsOn: c.coats * each,
      wait: (c.technique === 'wash' ? 60 : c.byAirbrush ? 5 : 20) * MIN * c.coats,
      setting: 'evaporation',
      needs: c.byAirbrush ? 'airbrush' : 'bench',
      cautions: c.byAirbrush ? ['mist'] : [],
      materials: [`${c.paint}: ${((c.area * c.coats * 0.05) / 1000 / (c.byAirbrush ? 0.4 : 0.9)).toFixed(2)} ml`],
    })
  })
  if (many && s.gluing === 'subAssemblies')
    add({
      key: 'join',
      phase: 'Finish',
      title: 'Join the painted parts',
      why: 'Painted apart for access; paint does not hold glue, so the faces were masked.',
      handsOn: 6 * MIN * (facts.parts.length - 1),
      wait: 6 * 3600,
      setting: 'reaction',
      needs: 'bench',
      cautions: ['putty'],
      materials: ['epoxy adhesive, slow'],
    })
  add({
    key: 'varnish',
    phase: 'Finish',
    title:
      s.finalCoat === 'oneMatt'
        ? 'Matt coat over all, then gloss accents'
        : `Varnish ${facts.varnish}, each region its own finish`,
    why:
      s.finalCoat === 'oneMatt'
        ? 'Handling rubs paint off. Metallics are masked first: matt kills them.'
        : 'Handling rubs paint off; each material keeps its sheen.',
    handsOn: 8 * MIN + dm2 * 2 * MIN,
    wait: 24 * 3600,
    setting: 'evaporation',
    needs: 'airbrush',
    cautions: ['spray'],
    materials: [`varnish, ${facts.varnish}`],
  })
  return steps
}
