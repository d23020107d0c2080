import { text } from '../../i18n'
import { computed } from 'vue'
import { known, MEASURING, missing, NONE, mapped, type Fact } from '../../../core/findings/facts'
import type { KnownAt } from '../../../core/findings/judge'
import { SURVIVES } from '../../../core/findings/tooThin'
import type { ThinnessAt } from '../../../core/fit/thinness'
import { healthAtScale } from '../../../core/mesh/health'
import type { Measures } from '../../../core/mesh/measure'
import { checkFact, stepFact } from '../../composables/facts'
import { useCheck } from '../../composables/useCheck'
import { usePrinterAndResin } from '../../composables/usePrinterAndResin'
import { usePiece } from '../piece'
import { useSculpts } from '../sculpts'

type Size = [number, number, number]
/** What a rule waits for while no printer is in stock. */
export const NO_PRINTER = missing(text('facts.sculptFacts.aPrinterSetUp'))

/** What is known of the sculpt of the part on the table, as imported and at its size. */
export function sculptFacts() {
  const piece = usePiece(),
    sculpts = useSculpts()
  const { printer } = usePrinterAndResin()
  const taken = computed(() => piece.meshAfter('simplify') ?? piece.part?.sculptMesh ?? null)
  const health = useCheck(
    () => taken.value,
    () => ({ kind: 'health' }),
  )
  const points = computed(() => health.report.value?.points ?? 0)
  const isMesh = computed(() => health.report.value !== null && points.value === 0)
  const scale = computed(() => {
    const op = piece.step('scale')?.op
    return op?.kind === 'scale' ? op.factor : 1
  })
  // On what is made: what was thickened is measured again, and its places are where they are shown.
  const thin = useCheck(
    () => (isMesh.value ? piece.meshAfter('thicken') : null),
    () => ({ kind: 'thinness', limit: SURVIVES }),
  )
  const floor = useCheck(
    () => (points.value > 0 ? taken.value : null),
    () => ({ kind: 'floor' }),
  )
  const came = useCheck(
    () => (isMesh.value ? taken.value : null),
    () => ({ kind: 'presupported' }),
  )
  void sculpts.load().catch(() => undefined)
  const sculpt = computed(() => sculpts.byId(piece.part?.sculptId) ?? null)
  /** What is scaled: the sculpt, posed and placed. */
  const posed = useCheck(
    () => (isMesh.value && piece.meshBefore('scale') !== taken.value ? piece.meshBefore('scale') : null),
    () => ({ kind: 'measures' }),
  )
  const measures = computed(() => (posed.asked.value ? posed.report.value : (health.report.value?.measures ?? null)))
  const axes = computed<Size>(() => {
    const op = piece.step('scale')?.op
    return op?.kind === 'scale' ? op.axes : [1, 1, 1]
  })
  const scaled = (m: Measures, factor: number, by: Size): Size =>
    m.size.map((s, k) => s * factor * by[k as 0 | 1 | 2]) as Size
  const size = computed(() => (measures.value ? scaled(measures.value, scale.value, axes.value) : undefined))

  const looked = computed(() => checkFact(health, missing(text('facts.sculptFacts.aSculpt'))))
  /** of a mesh only; a scan without faces has nothing of the kind */
  const ofMesh = <T>(fact: Fact<T>): Fact<T> =>
    points.value > 0 ? NONE : looked.value.state === 'known' ? fact : looked.value
  const ofScan = <T>(fact: Fact<T>): Fact<T> =>
    isMesh.value ? NONE : looked.value.state === 'known' ? fact : looked.value
  const intake = computed<KnownAt<'import'>>(() => {
    const s = sculpt.value
    return {
      sculptTerms: s ? known({ name: s.name, maySell: s.maySell, purpose: piece.piece?.purpose ?? 'keep' }) : NONE,
      sculptEdition: s
        ? known({ name: s.name, edition: s.edition, newest: sculpts.editions(s.family)[0]?.edition ?? s.edition })
        : NONE,
      fileSupports: ofMesh(mapped(checkFact(came), (r) => r.found)),
      health: ofMesh(mapped(looked.value, (h) => healthAtScale(h, scale.value))),
      cloudPoints: ofScan(known(points.value)),
      floor: ofScan(mapped(checkFact(floor), (r) => r.floor)),
      reconstruction: ofMesh(
        mapped(stepFact('surface', piece.counted('surface')), (r) => ({
          report: r.surface,
          area: health.report.value?.area ?? 0,
        })),
      ),
    }
  })

  /** As it would be at another factor: its places stay those of the factor that it has. */
  function thinnessAt(factor: number): ThinnessAt | null {
    const t = thin.report.value,
      f = factor / scale.value
    return (
      t && {
        ...t,
        thinnest: t.thinnest === null ? null : t.thinnest * f,
        thinArea: Math.abs(f - 1) < 1e-6 ? t.thinArea : null,
        places: t.places.map((p) => ({ ...p, thickness: p.thickness * f })),
      }
    )
  }
  /** As it would be at another factor. The size of a scan says nothing before it is calibrated. */
  const sizeAt = (factor: number, by = axes.value): KnownAt<'scale'> => ({
    size: ofMesh(
      measures.value
        ? known(scaled(measures.value, factor, by))
        : mapped(checkFact(posed, MEASURING), (m) => scaled(m, factor, by)),
    ),
    thinness: ofMesh(
      // How thin it gets along one axis is not known from how thin it is.
      by.some((a, k) => Math.abs(a / axes.value[k]! - 1) > 1e-6)
        ? missing(text('facts.sculptFacts.stretchApplied'))
        : (health.report.value?.insideOut.count ?? 0) > 0
          ? missing(text('facts.sculptFacts.facesThatPointOutward'))
          : mapped(checkFact(thin, MEASURING), () => thinnessAt(factor)!),
    ),
    printer: printer.value ? known(printer.value) : NO_PRINTER,
  })
  /** About the spacing of a cloud's points, if they lie on a skin of the size of their box. */
  const suggestedVoxel = computed(() => {
    const s = piece.report('trim')?.measures.size ?? health.report.value?.measures.size
    if (!s || points.value === 0) return null
    const skin = 1.2 * (s[0] * s[1] + s[1] * s[2] + s[2] * s[0])
    return Number(Math.sqrt(skin / points.value).toPrecision(2))
  })
  return { taken, health, thin, scale, size, measures, intake, sizeAt, thinnessAt, suggestedVoxel }
}
