import { zipSync } from 'fflate'
import type { Mesh } from '../mesh/mesh'
import { floatText } from './floatText'

export const CONTENT_TYPES = `<?xml version="1.0" encoding="UTF-8"?>
<Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types"><Default Extension="rels" ContentType="application/vnd.openxmlformats-package.relationships+xml"/><Default Extension="model" ContentType="application/vnd.ms-package.3dmanufacturing-3dmodel+xml"/></Types>`
export const RELATIONSHIPS = `<?xml version="1.0" encoding="UTF-8"?>
<Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships"><Relationship Target="/3D/3dmodel.model" Id="rel0" Type="http://schemas.microsoft.com/3dmanufacturing/2013/01/3dmodel"/></Relationships>`

/**
 * 3MF core specification 1.3: one object, millimetres, placed as it stands; vertex colours by the materials extension.
 * Coordinates exact to Float32.
 */
export function write3mf(mesh: Mesh): Uint8Array {
  const { colours } = mesh
  const rows: string[] = [
    '<?xml version="1.0" encoding="UTF-8"?>\n<model unit="millimeter" xml:lang="en" xmlns="http://schemas.microsoft.com/3dmanufacturing/core/2015/02"',
    colours ? ' xmlns:m="http://schemas.microsoft.com/3dmanufacturing/material/2015/02"' : '',
    '><resources>',
  ]
  const swatchOf = colours ? writeColours(colours, rows) : null
  rows.push(`<object id="1" type="model"${colours ? ' pid="2" pindex="0"' : ''}>`)
  for (const row of meshText(mesh, swatchOf)) rows.push(row)
  rows.push('</object></resources><build><item objectid="1"/></build></model>')
  const text = new TextEncoder()
  return zipSync(
    {
      '[Content_Types].xml': text.encode(CONTENT_TYPES),
      '_rels/.rels': text.encode(RELATIONSHIPS),
      '3D/3dmodel.model': text.encode(rows.join('')),
    },
    { level: 6, mtime: new Date('1980-01-02T00:00:00Z') },
  )
}

/** The mesh element, row by row. `swatchOf`: per vertex, its colour in group 2. */
export function* meshText(
  { positions: p, triangles: t }: Mesh,
  swatchOf: Uint32Array | null = null,
): Generator<string> {
  yield '<mesh><vertices>'
  for (let i = 0; i < p.length; i += 3)
    yield `<vertex x="${floatText(p[i]!)}" y="${floatText(p[i + 1]!)}" z="${floatText(p[i + 2]!)}"/>`
  yield '</vertices><triangles>'
  for (let i = 0; i < t.length; i += 3) {
    const [a, b, c] = [t[i]!, t[i + 1]!, t[i + 2]!]
    const paint = swatchOf ? ` pid="2" p1="${swatchOf[a]}" p2="${swatchOf[b]}" p3="${swatchOf[c]}"` : ''
    yield `<triangle v1="${a}" v2="${b}" v3="${c}"${paint}/>`
  }
  yield '</triangles></mesh>'
}

/** Writes each colour once, as group 2; returns which of them each vertex has. */
function writeColours(colours: Uint8Array, rows: string[]): Uint32Array {
  const swatches = new Map<number, number>()
  const of = new Uint32Array(colours.length / 3)
  rows.push('<m:colorgroup id="2">')
  for (let v = 0; v < of.length; v++) {
    const rgb = (colours[v * 3]! << 16) | (colours[v * 3 + 1]! << 8) | colours[v * 3 + 2]!
    let index = swatches.get(rgb)
    if (index === undefined) {
      swatches.set(rgb, (index = swatches.size))
      rows.push(`<m:color color="#${rgb.toString(16).padStart(6, '0').toUpperCase()}FF"/>`)
    }
    of[v] = index
  }
  rows.push('</m:colorgroup>')
  return of
}
