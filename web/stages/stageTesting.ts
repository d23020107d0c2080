import { flushPromises, mount, type DOMWrapper, type VueWrapper } from '@vue/test-utils'
import { vi } from 'vitest'
import { createMemoryHistory, createRouter, type Router } from 'vue-router'
import { printer as printerSchema, resin as resinSchema } from '../../contract/stock'
import { workshop as workshopSchema } from '../../contract/workshop'
import { schoolDefaults } from '../../core/defaults/plan'
import { health } from '../../core/mesh/health'
import { measure } from '../../core/mesh/measure'
import { boxBody } from '../../core/testBodies'
import { Bench, fakePage, item, PIECE, settled } from '../stores/fakeServer'
import { usePiece } from '../stores/piece'
import { useStock } from '../stores/stock'

/** A page with one piece of one part, a box, on a server that is made up; for tests of stages and panels. */
export class StageBench {
  readonly bench = new Bench()
  readonly router: Router
  private open: VueWrapper[] = []

  constructor() {
    const body = boxBody(10, 10, 20)
    this.bench.checks.set('health', { ...health(body), measures: measure(body), points: 0 })
    this.bench.checks.set('presupported', { found: null })
    // What a stage puts in the middle of the page is put there.
    document.body.innerHTML = '<div id="middle"></div>'
    fakePage((url, init) => this.bench.answer(url, init))
    this.router = createRouter({
      history: createMemoryHistory(),
      routes: [{ path: '/:rest(.*)', component: { template: '' } }],
    })
  }
  end(): void {
    for (const o of this.open) o.unmount()
    vi.unstubAllGlobals()
  }
  /** A printer and a resin in stock. */
  stocked(): void {
    this.bench.stock.push(
      item('printer', PRINTER_ID, printerSchema.parse(PRINTER)),
      item('resin', RESIN_ID, resinSchema.parse(RESIN)),
    )
  }
  async piece(): Promise<ReturnType<typeof usePiece>> {
    await usePiece().open(PIECE)
    await useStock()
      .load()
      .catch(() => undefined)
    await settle()
    return usePiece()
  }
  async show(component: object, props: object = {}): Promise<VueWrapper> {
    const at: VueWrapper = mount(component as never, {
      props: props as never,
      global: { plugins: [this.router] },
      attachTo: document.body,
    })
    this.open.push(at)
    await settle()
    return at
  }
  /** A stage or panel on the piece, opened. */
  async on(load: () => Promise<{ default: object }>, props: object = {}): Promise<VueWrapper> {
    const { default: component } = await load()
    await this.piece()
    return this.show(component, props)
  }
}

export const PRINTER_ID = '44444444-4444-4444-8444-444444444444',
  RESIN_ID = '55555555-5555-4555-8555-555555555555'
export const PRINTER = {
  name: 'Test printer',
  pixelsX: 1600,
  pixelsY: 1200,
  pitchX: 0.06,
  pitchY: 0.06,
  height: 120,
  layerHeight: 0.1,
}
export const RESIN = { name: 'Test resin', density: 1.2, pricePerLitre: 40 }

/** The workshop as the server gives it. */
export const shop = (more: object = {}): object =>
  workshopSchema.parse({
    version: 1,
    name: 'Test workshop',
    currency: 'EUR',
    temperature: 20,
    humidity: 50,
    schools: schoolDefaults,
    benchHours: [],
    ...more,
  })

/** Everything that is on its way has come. */
export const settle = async (): Promise<void> => {
  await flushPromises()
  await settled(30)
  await flushPromises()
}
type Within = VueWrapper | DOMWrapper<Element>

/** The button of that name, by its text or its label. */
export function button(at: Within, name: string | RegExp): DOMWrapper<HTMLButtonElement> {
  const all = at.findAll('button')
  const called = (b: DOMWrapper<HTMLButtonElement>): string => b.attributes('aria-label') ?? b.text()
  const found = all.find((b) => (typeof name === 'string' ? called(b) === name : name.test(called(b))))
  if (!found) throw new Error(`There is no button ${String(name)}: ${all.map(called).join(' | ')}`)
  return found
}
export async function press(at: Within, name: string | RegExp): Promise<void> {
  await button(at, name).trigger('click')
  await settle()
}
/** Types into the field of that label and leaves it. */
export async function type(at: Within, label: string | RegExp, text: string | number): Promise<void> {
  const field = control(at, label)
  await field.setValue(text)
  await field.trigger('blur')
  await settle()
}
/** The field of that label: by its own name, or by the label that is around it. */
export function control(at: Within, label: string | RegExp): DOMWrapper<HTMLInputElement> {
  const is = (text: string | undefined): boolean =>
    text !== undefined && (typeof label === 'string' ? text.trim() === label : label.test(text))
  const fields = at.findAll<HTMLInputElement>('input, select, textarea')
  const labels = at.findAll<HTMLLabelElement>('label')
  const ownText = (e: Element): string =>
    [...e.childNodes]
      .filter((n) => n.nodeType === 3 || (n as Element).tagName === 'SPAN')
      .map((n) => n.textContent)
      .join(' ')
  const found = fields.find((f) => {
    const around =
      f.element.closest('label') ??
      labels.find((l) => l.element.htmlFor !== '' && l.element.htmlFor === f.element.id)?.element
    return is(f.attributes('aria-label')) || (around !== undefined && is(ownText(around)))
  })
  if (!found) throw new Error(`There is no field ${String(label)}.`)
  return found
}
/** Opens a panel that is folded: the first, or the one at a place. */
export async function unfold(at: Within, index = 0): Promise<void> {
  await at.findAll('.fold-title')[index]!.trigger('click')
}
/** Types into a field that tells its text when it is left. */
export async function enter(at: Within, label: string | RegExp, text: string): Promise<void> {
  await control(at, label).setValue(text)
  await settle()
}
export async function choose(at: Within, label: string | RegExp, value: string | boolean): Promise<void> {
  const field = control(at, label)
  await field.setValue(value as never)
  await settle()
}
