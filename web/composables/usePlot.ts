import { token } from '../styles/token'
import { onBeforeUnmount, onMounted, watch, type Ref } from 'vue'

interface Plotly {
  react: (el: HTMLElement, data: object[], layout: object, config: object) => Promise<void>
  relayout: (el: HTMLElement, layout: object) => Promise<void>
  purge: (el: HTMLElement) => void
}
type Clickable = HTMLElement & {
  on?: (event: string, f: (d: { points: { pointNumber: number }[] }) => void) => void
  removeAllListeners?: (event: string) => void
}

/** Lines of a chart on paper, in the page's own face. */
export const gridColour = (): string => token('plot-grid')
const common = (): object => ({
  paper_bgcolor: 'transparent',
  plot_bgcolor: 'transparent',
  font: { family: '"Source Sans 3 Variable", sans-serif', size: 12, color: token('ink') },
  showlegend: false,
})

/**
 * Draws a chart into an element and keeps it as its figure says; the library is loaded only where a chart is shown.
 *
 * @param figure traces and layout; whatever it reads redraws it
 * @param pick called with the number of a point that was pressed
 * @param overlay the part of the layout that changes often; it is laid over without drawing the traces again
 */
export function usePlot(
  box: Ref<HTMLElement | null>,
  figure: () => { data: object[]; layout: object },
  pick?: (point: number) => void,
  overlay?: () => object,
): void {
  let plotly: Plotly | null = null
  let gone = false
  async function draw(): Promise<void> {
    plotly ??= ((await import('plotly.js-basic-dist-min')) as { default: Plotly }).default
    const el = box.value as Clickable | null
    if (!el || gone) return
    const { data, layout } = figure()
    await plotly.react(el, data, { ...common(), ...layout }, { displayModeBar: false, responsive: true })
    fit()
    if (!pick) return
    el.removeAllListeners?.('plotly_click')
    el.on?.('plotly_click', (d) => {
      pick(d.points[0]!.pointNumber)
    })
  }
  function fit(): void {
    if (overlay && plotly && box.value) void plotly.relayout(box.value, overlay())
  }
  onMounted(draw)
  if (overlay) watch(overlay, fit)
  // Its element may come with the figure, or after it.
  watch([figure, box], draw, { flush: 'post' })
  onBeforeUnmount(() => {
    gone = true
    if (plotly && box.value) plotly.purge(box.value)
  })
}
