import { text, fixed } from '../i18n'
import { computed, ref } from 'vue'
import { matchView, type PicturePair } from '../../core/pose/matchView'
import type { Picked } from '../viewport/scene'
import { useViewport } from '../viewport/useViewport'

/** Fewest places by which a view can be matched. */
const FEWEST = 4

/**
 * The view that a picture was taken from: the same places are pressed on the sculpt and in the picture, and the turntable
 * turns to where they meet.
 *
 * @param ask waits for a press on the sculpt
 * @param stop gives up waiting
 */
export function usePictureView(ask: (hint: string, taken: (p: Picked) => void) => void, stop: () => void) {
  const viewport = useViewport()
  const size = ref<[number, number]>([1, 1])
  const pairs = ref<PicturePair[]>([])
  /** a place on the sculpt that waits for its place in the picture */
  const half = ref<[number, number, number] | null>(null)
  const fault = ref('')
  /** % of the picture by which the places lie apart once it is matched */
  const error = ref<number | null>(null)
  /** how the picture is laid behind the view, as CSS has it */
  const matrix = ref<[number, number, number, number, number, number] | null>(null)

  /** Another picture, of that many pixels. */
  function begin(width: number, height: number): void {
    size.value = [width, height]
    pairs.value = []
    half.value = error.value = matrix.value = null
    fault.value = ''
    stop()
  }
  function pair(): void {
    half.value = null
    ask(text('composables.usePictureView.clickAPlaceOn'), pressed)
  }
  function pressed(p: Picked): void {
    if (p.companion !== null) return
    half.value = p.point
    ask(text('composables.usePictureView.nowClickTheSame'), pressed)
  }
  viewport.describe(() => {
    if (!half.value) return null
    const places = [...pairs.value.map((x) => x.point), half.value]
    return {
      markers: places.map((point) => ({ point: [...point] as [number, number, number], kind: 'hand' as const })),
    }
  })
  /** A press in the picture; nothing where no place on the sculpt waits for it. */
  function inPicture(e: MouseEvent): void {
    const b = (e.currentTarget as HTMLElement).getBoundingClientRect()
    if (!half.value) return
    const at = [
      ((e.clientX - b.left) / b.width) * size.value[0],
      ((e.clientY - b.top) / b.height) * size.value[1],
    ] as const
    pairs.value = [...pairs.value, { point: half.value, picture: at }]
    half.value = null
    stop()
    if (pairs.value.length >= FEWEST) match()
  }
  function match(): void {
    const view = viewport.camera()
    if (!view) return
    const m = matchView(pairs.value, view.middle, view.distance)
    if (!m) {
      fault.value = text('composables.usePictureView.thesePlacesAreOn')
      return
    }
    fault.value = ''
    error.value = (100 * m.error) / Math.hypot(...size.value)
    viewport.turnView(m.azimuth, m.elevation)
    // Picture to view is the inverse of what was fitted; the view is drawn at so many pixels a millimetre.
    const k = view.pixelsPerMm / m.scale,
      c = Math.cos(-m.roll) * k,
      s = Math.sin(-m.roll) * k
    const [x, y] = view.centre
    matrix.value = [c, s, -s, c, x - (c * m.shift[0] - s * m.shift[1]), y - (s * m.shift[0] + c * m.shift[1])]
  }
  const dots = computed(() =>
    pairs.value.map((p) => ({ x: (100 * p.picture[0]) / size.value[0], y: (100 * p.picture[1]) / size.value[1] })),
  )
  const told = computed(() =>
    pairs.value.length < FEWEST
      ? text('composables.usePictureView.morePlacesAreNeeded', { FEWEST: FEWEST - pairs.value.length })
      : error.value !== null
        ? text('composables.usePictureView.matchedTheMeanError', { error: fixed(error.value, 1) })
        : '',
  )
  return { size, pairs, half, fault, matrix, dots, told, enough: FEWEST, begin, pair, inPicture, match }
}
