import { token } from '../styles/token'
import { text } from '../i18n'
import { charted, unitName } from '../manner'

/** What shut cups could pull, over height: a height without a cup is left out, so that a line means one. */
export const suctionTrace = (suction: readonly number[], layerHeight: number): object => ({
  x: charted(
    'mm',
    suction.map((_, i) => (i + 0.5) * layerHeight),
  ),
  y: suction.map((f) => (f > 0 ? f : null)),
  name: 'suction',
  mode: 'lines',
  line: { color: token('problem'), width: 1.8 },
  hovertemplate: text('composables.traces.mmCupsPullUp', { unit: unitName('mm') }),
})
