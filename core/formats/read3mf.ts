import { SaxesParser, type SaxesTagPlain } from 'saxes'
import { bad, good, type Answer } from '../answer'
import { concatenate, type Mesh } from '../mesh/mesh'
import { openZip } from './archive'
import type { Body } from './body'
import { checkSoup } from './checkSoup'
import { identity4, placed, product4, type Matrix4 } from './matrix4'
import { message } from '../words/message'
import type { Said } from '../words/say'

const MILLIMETRES: Record<string, number> = {
  micron: 0.001,
  millimeter: 1,
  centimeter: 10,
  inch: 25.4,
  foot: 304.8,
  meter: 1000,
}
const DEEPEST = 32
const MAX_FACES = 20_000_000
const MAX_BODIES = 5000
/** uses of objects in all; a few nested components can otherwise ask for billions */
const MAX_USES = 100_000
const NO_COLOUR = -1

/** What stands in one model file of the package. */
interface Model {
  /** mm per unit */
  unit: number
  objects: Map<string, ModelObject>
  items: Placement[]
  /** packed RGB by property group and index */
  colours: Map<string, number[]>
}
interface ModelObject {
  name: string
  mesh: Mesh | null
  components: Placement[]
}
interface Placement {
  id: string
  /** model file in the package; null is the same file */
  path: string | null
  transform: Matrix4
}

class Refused extends Error {
  constructor(
    readonly code: string,
    readonly said: Said,
  ) {
    super(code)
  }
}

/**
 * Reads 3MF (core specification 1.3, with the production extension's paths and the materials extension's colours): every
 * build item becomes one body, its components joined, in millimetres and with its transforms applied. Objects that
 * nothing builds are left out, unless nothing is built at all.
 */
export function read3mf(bytes: Uint8Array): Answer<Body[]> {
  const zip = openZip(bytes, (name) => /\.(model|rels)$/i.test(name))
  if (!zip.ok) return zip
  try {
    const bodies = new Package(zip.value).bodies()
    return bodies.length > 0 ? good(bodies) : bad('3mf-no-faces', message('problems.read3mf.thereAreNoTrianglesIn'))
  } catch (error) {
    if (error instanceof Refused) return bad(error.code, error.said)
    throw error
  }
}

class Package {
  private readonly models = new Map<string, Model>()
  private faces = 0
  private uses = 0
  constructor(private readonly files: Map<string, Uint8Array>) {}

  bodies(): Body[] {
    const root = this.rootName()
    const { items, objects } = this.model(root)
    const built = items.length > 0 ? items : [...objects.keys()].map((id) => ({ id, path: null, transform: identity4 }))
    if (built.length > MAX_BODIES)
      throw new Refused('3mf-too-many', message('problems.read3mf.thereAreMoreThanBodies', { max_bodies: MAX_BODIES }))
    const out: Body[] = []
    for (const item of built) {
      const path = item.path ?? root
      const parts: Mesh[] = []
      const unit = this.model(path).unit
      const scale: Matrix4 = [unit, 0, 0, 0, 0, unit, 0, 0, 0, 0, unit, 0, 0, 0, 0, 1]
      this.gather(path, item.id, product4(scale, item.transform), [], parts)
      if (parts.length === 0) continue
      const name = this.model(path).objects.get(item.id)?.name || `body ${out.length + 1}`
      const mesh = parts.length === 1 ? parts[0]! : concatenate(parts)
      const problem = checkSoup(mesh.positions, () => message('problems.checkSoup.vertexOf', { name }))
      if (problem) throw new Refused(problem.problem.code, problem.problem.message)
      out.push({ name, mesh })
    }
    return out
  }

  private rootName(): string {
    const rels = this.files.get('_rels/.rels')
    let target = ''
    if (rels)
      parse(rels, 'the list of parts', (tag) => {
        if (local(tag.name) === 'Relationship' && /3dmodel$/.test(tag.attributes.Type ?? ''))
          target ||= normal(tag.attributes.Target ?? '')
      })
    if (this.files.has(target)) return target
    const any = [...this.files.keys()].find((n) => /\.model$/i.test(n))
    if (!any) throw new Refused('3mf-no-model', message('problems.read3mf.thereIsNoModelIn'))
    return any
  }

  private gather(path: string, id: string, to: Matrix4, above: readonly string[], into: Mesh[]): void {
    const key = `${path}#${id}`
    if (++this.uses > MAX_USES) throw new Refused('3mf-too-many', message('problems.read3mf.theObjectsOfThis3mf'))
    if (above.includes(key) || above.length > DEEPEST)
      throw new Refused('3mf-cycle', message('problems.read3mf.anObjectOfThis3mf'))
    const object = this.model(path).objects.get(id)
    if (!object)
      throw new Refused('3mf-missing', message('problems.read3mf.this3mfUsesObjectWhich', { id: id.slice(0, 12) }))
    if (object.mesh && object.mesh.triangles.length > 0) {
      this.faces += object.mesh.triangles.length / 3
      if (this.faces > MAX_FACES) throw new Refused('too-many-faces', message('problems.read3mf.thereAreMoreThan20'))
      into.push(placed(object.mesh, to))
    }
    for (const c of object.components)
      this.gather(c.path ?? path, c.id, product4(to, c.transform), [...above, key], into)
  }

  private model(path: string): Model {
    const known = this.models.get(path)
    if (known) return known
    const bytes = this.files.get(path)
    if (!bytes)
      throw new Refused('3mf-missing', message('problems.read3mf.this3mfNamesAPart', { path: path.slice(0, 40) }))
    const model = readModel(bytes)
    this.models.set(path, model)
    return model
  }
}

/** Package names are relative to its root; what would climb out of it is not in it. */
const normal = (name: string): string => name.replace(/^\/+/, '')
const local = (name: string): string => name.slice(name.indexOf(':') + 1)
/** Attribute by its local name, whatever prefix the writer gave it. */
function attribute(tag: SaxesTagPlain, name: string): string | undefined {
  const plain = tag.attributes[name]
  if (plain !== undefined) return plain
  for (const [k, v] of Object.entries(tag.attributes)) if (k.includes(':') && local(k) === name) return v
  return undefined
}

function parse(
  bytes: Uint8Array,
  what: string,
  opened: (tag: SaxesTagPlain) => void,
  closed: (name: string) => void = () => undefined,
): void {
  const parser = new SaxesParser({})
  const fail = (error: Error): never => {
    throw error instanceof Refused
      ? error
      : new Refused('3mf-damaged', message('problems.read3mf.the3mfIsDamagedIs', { what }))
  }
  parser.on('error', fail)
  // Declared entities are how small files become endless; a model has no use for any.
  parser.on('doctype', () => {
    throw new Refused('3mf-doctype', message('problems.read3mf.the3mfDeclaresXmlEntities'))
  })
  parser.on('opentag', opened)
  parser.on('closetag', (tag) => closed(tag.name))
  const decoder = new TextDecoder()
  const step = 1 << 20
  for (let at = 0; at < bytes.length; at += step)
    parser.write(decoder.decode(bytes.subarray(at, at + step), { stream: at + step < bytes.length }))
  parser.close()
}

function readModel(bytes: Uint8Array): Model {
  const model: Model = { unit: 1, objects: new Map(), items: [], colours: new Map() }
  let object: ModelObject | null = null,
    group: number[] | null = null
  let positions: number[] = [],
    triangles: number[] = [],
    ofVertex: number[] = []
  let inMesh = false
  let objectColour = NO_COLOUR,
    coloured = false,
    objectGroup: string | undefined
  const number = (tag: SaxesTagPlain, name: string): number => {
    const text = tag.attributes[name]
    const v = Number(text)
    if (text === undefined || text === '' || v !== v)
      throw new Refused(
        '3mf-bad-number',
        message('problems.read3mf.aOfThis3mfHas', { name: local(tag.name), name2: name }),
      )
    return v
  }
  const opened = (tag: SaxesTagPlain): void => {
    switch (local(tag.name)) {
      case 'mesh':
        inMesh = true
        return
      // Slices have vertices of their own; a body is its mesh.
      case 'vertex':
        if (inMesh) positions.push(number(tag, 'x'), number(tag, 'y'), number(tag, 'z'))
        return
      case 'triangle': {
        const corners = [number(tag, 'v1'), number(tag, 'v2'), number(tag, 'v3')]
        for (const v of corners)
          if (!Number.isInteger(v) || v < 0 || v * 3 >= positions.length)
            throw new Refused('3mf-missing-vertex', message('problems.read3mf.aFaceOfThis3mf', { v }))
        triangles.push(...corners)
        const own = tag.attributes.p1
        const colours = model.colours.get(tag.attributes.pid ?? objectGroup ?? '')
        if (!colours && objectColour === NO_COLOUR) return
        corners.forEach((v, k) => {
          const index = tag.attributes[`p${k + 1}`] ?? own
          const c = index === undefined ? objectColour : (colours?.[Number(index)] ?? objectColour)
          if (c === NO_COLOUR || (ofVertex[v] ?? NO_COLOUR) !== NO_COLOUR) return
          ofVertex[v] = c
          coloured = true
        })
        return
      }
      case 'model': {
        const unit = MILLIMETRES[tag.attributes.unit ?? 'millimeter']
        if (!unit)
          throw new Refused(
            '3mf-unit',
            message('problems.read3mf.this3mfIsMeasuredIn', { tag: tag.attributes.unit!.slice(0, 20) }),
          )
        model.unit = unit
        return
      }
      case 'basematerials':
      case 'colorgroup':
        group = []
        model.colours.set(tag.attributes.id ?? '', group)
        return
      case 'base':
      case 'color': {
        const hex = /^#([0-9a-f]{6})/i.exec(attribute(tag, 'displaycolor') ?? attribute(tag, 'color') ?? '')
        group?.push(hex ? parseInt(hex[1]!, 16) : NO_COLOUR)
        return
      }
      case 'object': {
        object = { name: tag.attributes.name ?? '', mesh: null, components: [] }
        model.objects.set(tag.attributes.id ?? '', object)
        objectGroup = tag.attributes.pid
        objectColour = model.colours.get(objectGroup ?? '')?.[Number(tag.attributes.pindex ?? 0)] ?? NO_COLOUR
        positions = []
        triangles = []
        ofVertex = []
        coloured = false
        return
      }
      case 'component':
        object?.components.push(placement(tag))
        return
      case 'item':
        if (tag.attributes.printable !== '0') model.items.push(placement(tag))
    }
  }
  const closed = (name: string): void => {
    if (local(name) !== 'mesh') return
    inMesh = false
    if (!object) return
    const colours = coloured ? new Uint8Array(positions.length) : null
    if (colours)
      for (let v = 0; v * 3 < colours.length; v++) {
        const c = ofVertex[v] ?? objectColour
        const rgb = c < 0 ? 0xc0c0c0 : c
        colours.set([rgb >> 16, (rgb >> 8) & 255, rgb & 255], v * 3)
      }
    object.mesh = {
      positions: new Float32Array(positions),
      triangles: new Uint32Array(triangles),
      ...(colours ? { colours } : {}),
    }
  }
  parse(bytes, 'its model', opened, closed)
  return model
}

function placement(tag: SaxesTagPlain): Placement {
  const path = attribute(tag, 'path')
  const text = tag.attributes.transform
  let transform = identity4
  if (text !== undefined) {
    const v = text.trim().split(/\s+/).map(Number)
    if (v.length !== 12 || v.some((x) => !Number.isFinite(x)))
      throw new Refused('3mf-bad-number', message('problems.read3mf.aPlacementInThis3mf'))
    // Row vectors in the file (v · M), columns here: the twelve numbers are the four columns of ours.
    transform = [v[0]!, v[1]!, v[2]!, 0, v[3]!, v[4]!, v[5]!, 0, v[6]!, v[7]!, v[8]!, 0, v[9]!, v[10]!, v[11]!, 1]
  }
  return { id: tag.attributes.objectid ?? '', path: path === undefined ? null : normal(path), transform }
}
