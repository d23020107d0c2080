import { zipSync } from 'fflate'
import type { Mesh } from '../mesh/mesh'

const TYPES = `<?xml version="1.0" encoding="UTF-8"?>
<Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types"><Default Extension="rels" ContentType="application/vnd.openxmlformats-package.relationships+xml"/><Default Extension="model" ContentType="application/vnd.ms-package.3dmanufacturing-3dmodel+xml"/></Types>`
const RELS = `<?xml version="1.0" encoding="UTF-8"?>
<Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships"><Relationship Target="/3D/3dmodel.model" Id="rel0" Type="http://schemas.microsoft.com/3dmanufacturing/2013/01/3dmodel"/></Relationships>`

/** 3MF core specification 1.3: one object, millimetres, placed as it stands. Coordinates exact to Float32. */
export function write3mf(mesh: Mesh): Uint8Array {
  const { positions: p, triangles: t } = mesh
  const rows: string[] = [
    '<?xml version="1.0" encoding="UTF-8"?>\n<model unit="millimeter" xml:lang="en" xmlns="http://schemas.microsoft.com/3dmanufacturing/core/2015/02"><resources><object id="1" type="model"><mesh><vertices>',
  ]
  for (let i = 0; i < p.length; i += 3)
    rows.push(`<vertex x="${short(p[i]!)}" y="${short(p[i + 1]!)}" z="${short(p[i + 2]!)}"/>`)
  rows.push('</vertices><triangles>')
  for (let i = 0; i < t.length; i += 3) rows.push(`<triangle v1="${t[i]}" v2="${t[i + 1]}" v3="${t[i + 2]}"/>`)
  rows.push('</triangles></mesh></object></resources><build><item objectid="1"/></build></model>')
  const text = new TextEncoder()
  return zipSync(
    { '[Content_Types].xml': text.encode(TYPES), '_rels/.rels': text.encode(RELS), '3D/3dmodel.model': text.encode(rows.join('')) },
    { level: 6, mtime: new Date('1980-01-02T00:00:00Z') },
  )
}

const short = (x: number): string => {
  const s = x.toPrecision(8)
  return String(Number(Math.fround(Number(s)) === x ? s : x.toPrecision(9)))
}
