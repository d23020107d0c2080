import { plateSize, type Printer } from '../print/slice/printer'
import type { Finding } from './finding'

/** Whether the body, standing as it does and with room for supports, fits the printer. */
export function doesNotFit(size: readonly [number, number, number], printer: Printer, oriented: boolean): Finding[] {
  const [w, d] = plateSize(printer)
  const sorted = [...size].sort((a, b) => a - b),
    room = [w, d, printer.height].sort((a, b) => a - b)
  const over = oriented
    ? Math.max(size[0] - w, size[1] - d, size[2] - printer.height)
    : Math.max(...sorted.map((s, i) => s - room[i]!))
  if (over <= 0) return []
  const quarter = oriented && size[0] <= d && size[1] <= w && size[2] <= printer.height
  const factor = oriented
    ? Math.min(w / size[0], d / size[1], printer.height / size[2])
    : Math.min(...sorted.map((s, i) => room[i]! / s))
  return [
    {
      id: 'does-not-fit',
      level: 'settle',
      value: over.toFixed(0),
      unit: 'mm too large',
      places: [],
      sentence: `${size.map((s) => s.toFixed(0)).join(' × ')} mm does not go into ${printer.name} (${w.toFixed(0)} × ${d.toFixed(0)} × ${printer.height} mm)${oriented ? ' as it stands' : ' any way up'}.`,
      how: 'Bounding box against the build volume.',
      fixes: [
        ...(quarter ? [{ act: 'quarterTurn', label: 'Quarter turn', effect: 'turned on the plate it fits' }] : []),
        {
          act: `scale:${(factor * 0.98).toFixed(4)}`,
          label: `Shrink to ${(factor * 98).toFixed(0)} %`,
          effect: 'fits with 2 % to spare',
        },
        ...(oriented ? [{ act: 'reorient', label: 'Turn it', effect: 'takes the best way up that fits' }] : []),
      ],
    },
  ]
}
