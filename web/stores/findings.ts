import { defineStore } from 'pinia'
import { computed, ref, watch } from 'vue'
import { reportOf } from '../../contract/derivations'
import { printer as printerSchema, resin as resinSchema, slicedResin } from '../../contract/stock'
import { cavityHoles, wallKept } from '../../core/findings/cavityHoles'
import { doesNotFit } from '../../core/findings/doesNotFit'
import { laterEdition, licence } from '../../core/findings/licence'
import { openMesh } from '../../core/findings/openMesh'
import { oldResin } from '../../core/findings/oldResin'
import { printTrouble } from '../../core/findings/printTrouble'
import { posedSkin } from '../../core/findings/posedSkin'
import { enoughResin } from '../../core/findings/enoughResin'
import { inventedSkin, scanFacts } from '../../core/findings/scanFacts'
import { scheduleRisk } from '../../core/findings/scheduleRisk'
import { supportedAlready, supportedFile } from '../../core/findings/supportedAlready'
import { suctionCup } from '../../core/findings/suctionCup'
import { supportGaps } from '../../core/findings/supportGaps'
import { unplacedSteps } from '../../core/findings/unplacedSteps'
import { hollowSaving } from '../../core/findings/hollowSaving'
import { trappedResin } from '../../core/findings/trappedResin'
import { SURVIVES, tooThin } from '../../core/findings/tooThin'
import type { Finding } from '../../core/findings/finding'
import { shelfLevel } from '../../core/stock/lots'
import type { Thinness } from '../../core/fit/thinness'
import { apply3, fromQuaternion } from '../../core/math/vectors'
import { LOOK } from '../../core/raster/layerGraph'
import { plateSize } from '../../core/print/slice/printer'
import { useCheck } from '../composables/useCheck'
import { useMeans } from '../composables/usePrinterAndResin'
import { useAssembly } from './assembly'
import { useDerivations, type CheckOf } from './derivations'
import { useInspection } from './inspection'
import { usePiece } from './piece'
import { usePlan } from './plan'
import { usePlating } from './plating'
import { useRuns } from './runs'
import type { PlateRecord } from '../../contract/runs'
import { useScheme } from './scheme'
import { useSculpts } from './sculpts'
import { useStock } from './stock'

/**
 * What was measured and concluded in every stage of the part on the table, whether or not the stage is open: the
 * thread counts it, the stage shows it. Checks are asked as soon as their mesh is there; slicing only on demand.
 */
export const useFindings = defineStore('findings', () => {
  const piece = usePiece(),
    plan = usePlan(),
    scheme = useScheme(),
    assembly = useAssembly(),
    sculpts = useSculpts(),
    derivations = useDerivations(),
    flaws = useInspection(),
    stock = useStock()
  const { printer, resin } = useMeans()

  const taken = computed(() => piece.meshAfter('simplify') ?? piece.part?.sculptMesh ?? null)
  const health = useCheck(
    () => taken.value,
    () => ({ kind: 'health' }),
  )
  const scale = computed(() => {
    const op = piece.step('scale')?.op
    return op?.kind === 'scale' ? op.factor : 1
  })
  const thin = useCheck(
    () => (health.report.value && health.report.value.points === 0 ? taken.value : null),
    () => ({ kind: 'thinness', limit: SURVIVES / scale.value }),
  )
  const size = computed(
    () => health.report.value?.measures.size.map((s) => s * scale.value) as [number, number, number] | undefined,
  )
  const points = computed(() => health.report.value?.points ?? 0)
  const floor = useCheck(
    () => (points.value > 0 ? taken.value : null),
    () => ({ kind: 'floor' }),
  )
  void sculpts.load().catch(() => undefined)
  const shelf = computed<Finding[]>(() => {
    const s = sculpts.byId(piece.part?.sculptId)
    return s
      ? [
          ...licence(s.name, s.maySell, piece.piece?.purpose ?? 'keep'),
          ...laterEdition(s.name, s.edition, sculpts.editions(s.family)[0]?.edition ?? s.edition),
        ]
      : []
  })
  const came = useCheck(
    () => (health.report.value && points.value === 0 ? taken.value : null),
    () => ({ kind: 'presupported' }),
  )
  const intake = computed<Finding[]>(() => [
    ...shelf.value,
    ...(came.report.value?.found ? supportedFile(came.report.value.found) : []),
    ...taking.value,
  ])
  const taking = computed<Finding[]>(() => {
    const h = health.report.value
    if (!h) return []
    if (h.points > 0) return scanFacts(h.points, floor.report.value?.floor ?? null)
    const surface = piece.report('surface')?.surface
    return [...(surface ? inventedSkin(surface, h.area) : []), ...openMesh(h)]
  })
  /** About the spacing of a cloud's points, if they lie on a skin of the size of their box. */
  const suggestedVoxel = computed(() => {
    const s = piece.report('trim')?.measures.size ?? health.report.value?.measures.size
    if (!s || points.value === 0) return null
    const skin = 1.2 * (s[0] * s[1] + s[1] * s[2] + s[2] * s[0])
    return Number(Math.sqrt(skin / points.value).toPrecision(2))
  })
  // The size of a scan says nothing before it is calibrated.
  const sized = computed<Finding[]>(() => (points.value > 0 ? [] : sizeFindings(scale.value)))
  /** The size stage's findings as they would be at another factor. */
  function sizeFindings(factor: number): Finding[] {
    const base = health.report.value?.measures.size
    const at = base?.map((s) => s * factor) as [number, number, number] | undefined
    const thinAt = thinnessAt(factor)
    return [...(at && printer.value ? doesNotFit(at, printer.value, false) : []), ...(thinAt ? tooThin(thinAt) : [])]
  }
  function thinnessAt(f: number): Thinness | null {
    const t = thin.report.value
    return (
      t && {
        ...t,
        thinnest: t.thinnest === null ? null : t.thinnest * f,
        thinArea: t.thinnest !== null && t.thinnest * f < SURVIVES ? t.thinArea * f * f : 0,
        places: t.places.map((p) => ({ ...p, thickness: p.thickness * f })),
      }
    )
  }

  const hollow = computed(() => piece.report('hollow')?.hollow ?? null)
  /** The part hangs as it was stood; before that it is taken as upright. In its own frame. */
  const down = computed<[number, number, number]>(() => {
    const o = piece.step('orient')?.op
    if (o?.kind !== 'orient') return [0, 0, -1]
    const [x, y, z, w] = o.quaternion
    return apply3(fromQuaternion([-x, -y, -z, w]), [0, 0, -1])
  })
  const drained = useCheck(
    () => (piece.step('drill') ? piece.meshAfter('drill') : null),
    () => ({ kind: 'trapped', down: down.value }),
  )
  const core = computed<Finding[]>(() => {
    const op = piece.step('hollow')?.op
    if (!hollow.value || op?.kind !== 'hollow') return []
    return [
      ...cavityHoles(hollow.value, piece.report('drill')?.drill.holes.length ?? 0),
      ...wallKept(hollow.value, op.voxel),
      ...hollowSaving(hollow.value.volumeBefore, hollow.value.volumeAfter, true),
      ...(drained.report.value ? trappedResin(drained.report.value) : []),
    ]
  })

  const standing = computed(() => (piece.step('orient') || piece.step('support') ? piece.meshAfter('support') : null))
  const layers = useCheck(
    () => standing.value,
    () => ({ kind: 'layers', step: LOOK }),
  )
  const printSize = computed(() => (piece.report('support') ?? piece.report('orient'))?.measures.size ?? null)
  const fits = computed(() =>
    printSize.value && printer.value ? doesNotFit(printSize.value, printer.value, true) : [],
  )
  // A file that came with supports is told before anything is done to it.
  const carries = useCheck(
    () => (piece.step('support') || piece.step('hollow') ? null : piece.meshBefore('orient')),
    () => ({ kind: 'presupported' }),
  )
  const stand = computed<Finding[]>(() => [
    ...(carries.report.value?.found ? supportedAlready(carries.report.value.found) : []),
    ...fits.value,
    ...(layers.report.value
      ? [
          ...supportGaps(layers.report.value.islands, LOOK, piece.report('support')?.support ?? null),
          ...suctionCup(layers.report.value.cups, LOOK),
        ]
      : []),
  ])

  // The part at work alone, or a whole plate on the printer that it was set up for.
  const plating = usePlating()
  const printing = computed(() => ({
    mesh: plating.target?.mesh ?? piece.meshAfter('support'),
    printer: plating.target?.printer ?? printer.value,
  }))
  const sliceCheck = computed<CheckOf<'slice'> | null>(() =>
    printing.value.printer && resin.value
      ? { kind: 'slice', printer: printerSchema.parse(printing.value.printer), resin: slicedResin.parse(resin.value) }
      : null,
  )
  const sliceKey = ref<string | null>(null)
  const sliced = computed(() => (sliceKey.value ? (derivations.known.get(sliceKey.value) ?? null) : null))
  const sliceReport = computed(() => reportOf(sliced.value, 'slice'))
  watch(
    () => JSON.stringify([printing.value.mesh, sliceCheck.value]),
    async () => {
      sliceKey.value = null
      const { mesh } = printing.value,
        check = sliceCheck.value
      if (!mesh || !check) return
      const before = await derivations.peek(mesh, check).catch(() => null)
      if (before && mesh === printing.value.mesh) sliceKey.value = before.key
    },
    { immediate: true },
  )
  async function slice(): Promise<void> {
    const { mesh } = printing.value
    if (mesh && sliceCheck.value) sliceKey.value = (await derivations.ask(mesh, sliceCheck.value)).key
  }
  const inStock = computed(() => (resin.value ? shelfLevel(resinSchema.parse(resin.value)) : null))
  const plates = computed<Finding[]>(() => {
    const r = sliceReport.value
    return [
      ...fits.value,
      ...(resin.value ? oldResin(resin.value.name, resinSchema.parse(resin.value).bottles, stock.today()) : []),
      ...(r
        ? [
            ...supportGaps(r.islands, r.layerHeight, null),
            ...suctionCup(r.cups, r.layerHeight),
            ...(printing.value.printer ? enoughResin(r.resinMl, inStock.value, plateSize(printing.value.printer)) : []),
          ]
        : []),
    ]
  })
  const runs = useRuns()
  const plateName = (p: PlateRecord): string =>
    `${p.printerName}, plate ${p.number} of run ${runs.runs.find((r) => r.id === p.runId)?.number ?? 0}`
  /** ml that the layers not printed yet take, by their share of all */
  const stillNeeded = (p: PlateRecord): number =>
    p.estimate.millilitres * (1 - p.progress.layer / Math.max(1, p.layers))
  const printed = computed<Finding[]>(() =>
    printTrouble(
      runs.plates.map((p) => ({
        id: p.id,
        name: plateName(p),
        state: p.state,
        problem: p.problem,
        layer: p.progress.layer,
        layers: p.layers,
        doing: p.progress.state,
        why: p.progress.why,
        silent: p.progress.lostAt ? (Date.now() - new Date(p.progress.lostAt).getTime()) / 60_000 : null,
        vat: p.progress.vat,
        needed: stillNeeded(p),
        failed: p.outcomes.filter((o) => o.result === 'failed').length,
        reprinted: runs.runs.some((r) => r.reprintOf === p.runId),
      })),
    ),
  )
  const anyHours = computed(() => {
    const shop = stock.workshop
    return !shop || shop.benchHours.length > 0 || shop.people.some((p) => (p.hours?.length ?? 0) > 0)
  })
  const bench = computed<Finding[]>(() =>
    plan.plan && piece.piece
      ? [
          ...scheduleRisk(plan.plan.steps, plan.plan.finish, piece.piece.deadline, stock.zone),
          ...(plan.plan.sprayRefused ? [spray(plan.plan.sprayRefused)] : []),
          ...unplacedSteps(plan.plan.impossible.length, anyHours.value),
        ]
      : [],
  )
  const posed = computed<Finding[]>(() => {
    const r = piece.report('pose')?.pose
    return r ? posedSkin(r) : []
  })
  const byStage = computed(() => ({
    brief: [] as Finding[],
    intake: intake.value,
    combine: assembly.findings,
    pose: posed.value,
    size: sized.value,
    core: core.value,
    stand: stand.value,
    plates: plates.value,
    print: [...printed.value, ...flaws.learned],
    clean: [] as Finding[],
    prime: flaws.findings,
    scheme: scheme.findings,
    plan: bench.value,
  }))
  return {
    byStage,
    taken,
    floor: computed(() => floor.report.value?.floor ?? null),
    suggestedVoxel,
    health: health.report,
    healthProblem: health.problem,
    thin: thin.report,
    measuring: computed(() => health.measuring.value || thin.measuring.value),
    size,
    sizeFindings,
    thinnessAt,
    layersMeasuring: layers.measuring,
    layersProblem: layers.problem,
    layers: layers.report,
    down,
    drained: drained.report,
    drainedProblem: drained.problem,
    sliced,
    sliceReport,
    slice,
    stillNeeded,
  }
})

const spray = (sentence: string): Finding => ({
  id: 'spray',
  level: 'settle',
  value: '0',
  unit: 'spray coats today',
  sentence,
  places: [],
  how: 'Room as set in the workshop.',
  fixes: [],
})
