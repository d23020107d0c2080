import { text, fixed } from '../i18n'
import { dateText } from '../manner'
import { computed } from 'vue'
import type { PieceStage } from '../../core/stages'
import type { OperationRecord } from '../../contract/operations'
import { duration } from '../shell/duration'
import { useAssembly } from '../stores/assembly'
import { useFindings } from '../stores/findings'
import { useInspection } from '../stores/inspection'
import { usePiece } from '../stores/piece'
import { usePlan } from '../stores/plan'
import { useRuns } from '../stores/runs'
import { useScheme } from '../stores/scheme'

export interface StageEntry {
  name: PieceStage
  title: string
  state: 'done' | 'open' | 'stale' | 'waiting'
  measure: string
  /** findings that must be fixed, and those that may spoil the result */
  problems: number
  warnings: number
}
const SHAPING: readonly OperationRecord['kind'][] = ['base', 'place', 'join', 'fix']
type Bare = Omit<StageEntry, 'problems' | 'warnings'>

/** The piece's stages in working order, each with its state and the one measure that matters there. */
export function useStages() {
  const store = usePiece(),
    found = useFindings(),
    plan = usePlan(),
    scheme = useScheme(),
    assembly = useAssembly(),
    runs = useRuns(),
    flaws = useInspection()
  const state = (...kinds: OperationRecord['kind'][]): StageEntry['state'] => {
    const steps = kinds.map((k) => store.step(k)).filter((s) => s !== null)
    if (steps.length === 0) return 'open'
    if (steps.some((s) => s.derivation?.status === 'failed')) return 'stale'
    if (steps.some((s) => s.derivation === null)) return 'stale'
    return steps.every((s) => s.derivation?.status === 'done') ? 'done' : 'waiting'
  }
  const ml = (v: number): string => text('composables.useStages.ml', { v: fixed(v / 1000, v < 100_000 ? 1 : 0) })
  const bare = computed<{ length: string; entries: Bare[] }[]>(() => {
    const p = store.piece,
      part = store.part
    const size = store.step('scale') ? found.size : undefined
    const hollow = store.report('hollow')?.hollow,
      drill = store.report('drill')?.drill,
      support = store.report('support')?.support
    return [
      {
        length: text('composables.useStages.model'),
        entries: [
          {
            name: 'brief',
            title: text('composables.useStages.brief'),
            state: p?.brief ? 'done' : 'open',
            measure: p?.deadline
              ? text('composables.useStages.due', {
                  value: dateText(p.deadline, 'day'),
                })
              : '',
          },
          {
            name: 'import',
            title: text('composables.useStages.import'),
            state: part ? (store.step('repair') ? state('repair') : 'done') : 'open',
            measure: part
              ? text('composables.useStages.partlistReport', {
                  partList: p!.partList.length,
                  report: Boolean(store.report('repair')),
                })
              : text('composables.useStages.addASculpt'),
          },
          { name: 'combine', title: text('composables.useStages.combine'), ...combined() },
          { name: 'pose', title: text('composables.useStages.pose'), state: state('pose'), measure: posed() },
          {
            name: 'scale',
            title: text('composables.useStages.scale'),
            state: state('scale'),
            measure: size
              ? text('composables.useStages.mmTall', { size: fixed(size[2], 0) })
              : part
                ? text('composables.useStages.unchanged')
                : '',
          },
        ],
      },
      {
        length: text('composables.useStages.print'),
        entries: [
          {
            name: 'hollow',
            title: text('composables.useStages.hollow'),
            state: state('hollow', 'drill'),
            measure: hollow
              ? text('composables.useStages.drillHoles', {
                  volumeBefore: ml(hollow.volumeBefore - hollow.volumeAfter),
                  drill: Boolean(drill),
                  holes: drill?.holes.length,
                })
              : part
                ? text('composables.useStages.solid')
                : '',
          },
          {
            name: 'orient',
            title: text('composables.useStages.orientAndSupport'),
            state: state('orient', 'support'),
            measure: support
              ? text('composables.useStages.tips', { tips: support.tips.length })
              : store.counted('orient')
                ? text('composables.useStages.oriented')
                : '',
          },
          { name: 'plates', title: text('composables.useStages.plates'), ...plates() },
          { name: 'print', title: text('composables.useStages.print'), ...printed() },
          { name: 'clean', title: text('composables.useStages.cleanAndCure'), ...cleaned() },
        ],
      },
      {
        length: text('composables.useStages.bench'),
        entries: [
          { name: 'prime', title: text('composables.useStages.fitAndPrime'), ...inspected() },
          { name: 'scheme', title: text('composables.useStages.paintScheme'), ...painted() },
          { name: 'plan', title: text('composables.useStages.plan'), ...planned() },
        ],
      },
    ]
  })
  function posed(): string {
    const op = store.step('pose')?.op
    if (op?.kind !== 'pose') return store.part ? text('composables.useStages.unchanged') : ''
    const n = op.joints.filter((j) => Math.abs(j.turn[3]) < 0.99999).length
    return text('composables.useStages.nTurned', { n })
  }
  function combined(): Pick<StageEntry, 'state' | 'measure'> {
    const tip = assembly.balance?.weakest.angle
    const shaped = store.piece?.partList.some((x) => x.steps.some((s) => SHAPING.includes(s.op.kind))) ?? false
    return {
      state: assembly.measuring && assembly.several ? 'waiting' : shaped || assembly.several ? 'done' : 'open',
      measure:
        tip === undefined
          ? ''
          : tip < 0
            ? text('composables.useStages.tipsOver')
            : text('composables.useStages.standsUpTo', { tip: fixed(tip, 0) }),
    }
  }
  function plates(): Pick<StageEntry, 'state' | 'measure'> {
    const r = found.sliceReport
    if (r)
      return {
        state: 'done',
        measure: text('composables.useStages.ml2', { seconds: duration(r.seconds), resinMl: fixed(r.resinMl, 0) }),
      }
    const support = store.report('support')?.support
    const status = found.sliced?.status
    return {
      state: status === 'waiting' || status === 'running' ? 'waiting' : status === 'failed' ? 'stale' : 'open',
      measure: support ? text('composables.useStages.mmToPrint', { height: fixed(support.height, 0) }) : '',
    }
  }
  function printed(): Pick<StageEntry, 'state' | 'measure'> {
    const live = runs.plates.filter((p) => p.state === 'printing' || p.state === 'sending')
    const [first] = live
    if (first) {
      const { layer, layers } = first.progress
      const measure =
        live.length > 1
          ? text('composables.useStages.plates2', { live: live.length })
          : first.device
            ? text('composables.useStages.layerOf', { layer, value: layers > 0 ? layers : first.layers })
            : text('composables.useStages.byHand')
      return { state: 'waiting', measure }
    }
    const latest = runs.runs[0]
    if (!latest) return { state: 'open', measure: '' }
    const judged = latest.plates.filter((p) => p.state === 'judged').length
    return judged === latest.plates.length
      ? { state: 'done', measure: text('composables.useStages.run', { number: latest.number }) }
      : { state: 'open', measure: text('composables.useStages.ofPlates', { judged, plates: latest.plates.length }) }
  }
  function cleaned(): Pick<StageEntry, 'state' | 'measure'> {
    const off = runs.plates.filter((p) => p.state === 'ended' || p.state === 'judged')
    if (off.length === 0) return { state: 'open', measure: '' }
    // Feeling it over is the last step of every clean up.
    const clean = off.filter((p) => p.cleaned.feel).length
    return {
      state: clean === off.length ? 'done' : 'open',
      measure: text('composables.useStages.ofPlates2', { clean, off: off.length }),
    }
  }
  function inspected(): Pick<StageEntry, 'state' | 'measure'> {
    const all = flaws.inspection
    const last = all?.passes.at(-1)
    if (!all || !last) return { state: 'open', measure: '' }
    const open = all.flaws.filter((f) => f.state === 'open').length
    return all.closed
      ? { state: 'done', measure: text('composables.useStages.passes', { passes: all.passes.length }) }
      : { state: 'open', measure: text('composables.useStages.passOpen', { pass: last.pass, open }) }
  }
  function painted(): Pick<StageEntry, 'state' | 'measure'> {
    const s = scheme.scheme
    if (!s || s.coats.length === 0) return { state: 'open', measure: '' }
    const bare = s.regions.filter((r) => !s.coats.some((c) => c.regionId === r.id)).length
    return {
      state: bare > 0 ? 'open' : 'done',
      measure:
        bare > 0
          ? text('composables.useStages.ofWithoutCoats', { bare, regions: s.regions.length })
          : text('composables.useStages.regionsCoats', { regions: s.regions.length, coats: s.coats.length }),
    }
  }
  function planned(): Pick<StageEntry, 'state' | 'measure'> {
    const steps = plan.plan?.steps ?? []
    if (steps.length === 0) return { state: 'open', measure: '' }
    const done = steps.filter((s) => s.doneAt).length
    const until = Math.max(0, ...steps.map((s) => (s.timerUntil ? new Date(s.timerUntil).getTime() : 0)))
    if (until > plan.now)
      return {
        state: 'waiting',
        measure: text('composables.useStages.waitsUntil', {
          value: dateText(until, 'time'),
        }),
      }
    return {
      state: done === steps.length ? 'done' : 'open',
      measure: text('composables.useStages.ofDone', { done, steps: steps.length }),
    }
  }
  return computed<{ length: string; entries: StageEntry[] }[]>(() =>
    bare.value.map((l) => ({
      ...l,
      entries: l.entries.map((k) => {
        const list = [...found.byStage[k.name].findings, ...(k.name === 'scheme' ? found.byStage.order.findings : [])]
        const measuring = found.byStage[k.name].rules.some((r) => r.state === 'measuring')
        const problems = list.filter((f) => f.level === 'problem').length
        return {
          ...k,
          // What must be fixed keeps a stage from being done, and so does what is not measured yet.
          state: k.state !== 'done' ? k.state : problems > 0 ? 'stale' : measuring ? 'waiting' : 'done',
          problems,
          warnings: list.filter((f) => f.level === 'warning').length,
        }
      }),
    })),
  )
}
