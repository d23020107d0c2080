import { rename, rm, writeFile } from 'node:fs/promises'
import { basename, dirname, extname } from 'node:path'
import { z } from 'zod'
import { operation, operationList } from '../contract/operations'
import { printerFile } from '../contract/stock'
import type { Problem } from '../core/answer'
import { writeGlb } from '../core/formats/writeGlb'
import { writeObj } from '../core/formats/obj'
import { writePly } from '../core/formats/ply'
import { writeStl } from '../core/formats/stl'
import { write3mf } from '../core/formats/write3mf'
import { health, type Health } from '../core/mesh/health'
import type { Mesh } from '../core/mesh/mesh'
import { applyOperation } from '../core/shape/applyOperation'
import type { Operation, OperationReport } from '../core/shape/operations'
import { balanceCommand, fitCommand } from './assembly'
import { load, loadJson, loadOthers, unwritable } from './files'
import { layersCommand } from './layers'
import { nestCommand } from './nest'
import { sliceCommand } from './slice'
import { supportsCommand } from './supports'
import { trapCommand } from './trap'

const USAGE = `undercut check FILE [--json]
    Health of a sculpt. Exit 0 sound, 1 defects, 2 unreadable.
undercut apply OPS.json FILE -o OUT [--report R.json]
    Applies a list of operation records. OUT ends in .stl, .obj, .ply, .3mf or .glb. A join names its other parts by
    files beside OPS.json.
undercut fit A B [--json]
    Gaps and overlaps between two placed parts.
undercut balance ASSEMBLY.json [--json]
    Whether the whole stands. ASSEMBLY.json: { "parts": [{ "file", "density", "infill" }], "wish" }.
undercut trap FILE [--pose X,Y,Z] [--json]
    Resin that stays in a hollow part when that direction is down, and the poses that empty it. 0 empties, 1 not.
undercut supports FILE --printer PRINTER.json [-o OUT] [--report R.json] [--json]
    Supports for a body as it stands in its file, with the load, length and clearance of every tip. 0 holds, 1 not.
undercut nest PARTS... --printers PRINTERS.json [--aim hours|soonest] [-o PLATE.stl] [--report R.json] [--json]
    Plates for parts as they stand in their files; FILE:3 stands for three of it. -o writes PLATE-1.stl and so on.
    0 all placed, 1 some fit no printer.
undercut slice FILE --printer PRINTER.json -o OUT [--report R.json]
    OUT.zip: PNG layers with a JSON manifest. OUT.3mf: the mesh with its slices. OUT.svg: outlines in true size.
undercut layers ZIP [--pitch X,Y] [--layer H] [--report R.json] [--json]
    Reads layers back, whoever wrote them: islands, cups, peel. 0 none, 1 some, 2 unreadable.
undercut --help
    This, and the schema of each operation and of a printer file.
`

/** Runs a command line and gives its exit code: 0 done, 1 defects or refused, 2 unreadable or misused. */
export async function run(
  args: readonly string[],
  out: (s: string) => void,
  err: (s: string) => void,
): Promise<number> {
  const { words, flags } = parse(args)
  const fail = (p: Problem, code: number): number => {
    err(`undercut: ${p.message}\n`)
    return code
  }
  if (flags.has('help') || words.length === 0) {
    out(USAGE)
    if (flags.has('help'))
      out(
        `\nOperations:\n${JSON.stringify(z.toJSONSchema(operation, { io: 'input' }), null, 1)}\n\nPrinter file:\n${JSON.stringify(z.toJSONSchema(printerFile, { io: 'input' }), null, 1)}\n`,
      )
    return flags.has('help') ? 0 : 2
  }
  const [command, ...rest] = words
  if (command === 'check') {
    if (!rest[0]) return fail({ code: 'usage', message: 'check needs a FILE.' }, 2)
    const mesh = await load(rest[0])
    if (!mesh.ok) return fail(mesh.problem, 2)
    const h = health(mesh.value)
    out(
      flags.has('json')
        ? `${JSON.stringify({ file: basename(rest[0]), ...h, volumeMl: h.volume / 1000 }, null, 1)}\n`
        : describe(basename(rest[0]), h),
    )
    return h.sound ? 0 : 1
  }
  if (command === 'apply') {
    const [opsFile, file] = rest,
      target = flags.get('o')
    if (!opsFile || !file || !target)
      return fail({ code: 'usage', message: 'apply needs OPS.json, FILE and -o OUT.' }, 2)
    const ops = await loadJson(opsFile, operationList)
    if (!ops.ok) return fail(ops.problem, 2)
    const writer = WRITERS[extname(target).toLowerCase()]
    if (!writer)
      return fail(
        { code: 'format-unknown', message: `${target}: results are written as .stl, .obj, .ply, .3mf or .glb.` },
        2,
      )
    const input = await load(file)
    if (!input.ok) return fail(input.problem, 2)
    let mesh = input.value
    const reports: OperationReport[] = []
    for (const [i, op] of ops.value.entries()) {
      const others = await loadOthers(op, dirname(opsFile))
      if (!others.ok) return fail(others.problem, 2)
      const r = await applyOperation(mesh, op as Operation, undefined, others.value)
      if (!r.ok) return fail({ ...r.problem, message: `Operation ${i + 1} (${op.kind}): ${r.problem.message}` }, 1)
      reports.push(r.value.report)
      mesh = r.value.mesh
    }
    const noted = (await write(target, writer(mesh))) ?? (await writeReport(flags.get('report'), reports))
    if (noted) return fail(noted, 2)
    out(`${target}: ${(mesh.triangles.length / 3).toLocaleString('en')} faces after ${reports.length} operations\n`)
    return 0
  }
  if (command === 'fit') return fitCommand(rest, flags, out, fail)
  if (command === 'balance') return balanceCommand(rest, flags, out, fail)
  if (command === 'trap') return trapCommand(rest, flags, out, fail)
  if (command === 'supports')
    return supportsCommand(rest, flags, out, fail, write, (path) => WRITERS[extname(path).toLowerCase()])
  if (command === 'layers') return layersCommand(rest, flags, out, fail, write)
  if (command === 'nest')
    return nestCommand(rest, flags, out, fail, write, (path) => WRITERS[extname(path).toLowerCase()])
  if (command === 'slice') return sliceCommand(rest, flags, out, fail, writeReport)
  return fail({ code: 'usage', message: `There is no command "${command}". Try undercut --help.` }, 2)
}

/** Writes beside the target and moves there when whole, so that a half result never stands under its name. */
async function write(path: string, content: Uint8Array | string): Promise<Problem | null> {
  const beside = `${path}.part`
  try {
    await writeFile(beside, content)
    await rename(beside, path)
    return null
  } catch (error) {
    await rm(beside, { force: true })
    return unwritable(path, error)
  }
}
const writeReport = (path: string | undefined, report: unknown): Promise<Problem | null> =>
  path === undefined ? Promise.resolve(null) : write(path, JSON.stringify(report, null, 1))

const WRITERS: Record<string, (m: Mesh) => Uint8Array> = {
  '.stl': writeStl,
  '.obj': (m) => writeObj(m),
  '.ply': writePly,
  '.glb': (m) => writeGlb(m),
  '.3mf': write3mf,
}

const VALUED = ['-o', '--report', '--printer', '--printers', '--aim', '--pose', '--pitch', '--layer']
function parse(args: readonly string[]): { words: string[]; flags: Map<string, string> } {
  const words: string[] = [],
    flags = new Map<string, string>()
  for (let i = 0; i < args.length; i++) {
    const a = args[i]!
    if (VALUED.includes(a)) flags.set(a.replace(/^-+/, ''), args[++i] ?? '')
    else if (a.startsWith('-')) flags.set(a.replace(/^-+/, ''), '')
    else words.push(a)
  }
  return { words, flags }
}

function describe(name: string, h: Health): string {
  const rows: [string, string][] = [
    ['faces', h.faces.toLocaleString('en')],
    ['shells', String(h.shells)],
    ['size', `${h.size.map((s) => s.toFixed(2)).join(' × ')} mm (${h.units})`],
    ['volume', `${(h.volume / 1000).toFixed(2)} ml`],
    ['area', `${(h.area / 100).toFixed(1)} cm²`],
    ['open edges', `${h.openEdges.count} in ${h.holes.count} holes`],
    ['edges of more than two faces', String(h.nonManifold.count)],
    ['disagreeing directions', String(h.disoriented.count)],
    ['shells inside out', String(h.insideOut.count)],
    ['degenerate or doubled faces', String(h.degenerate.count + h.duplicate.count)],
    ['faces crossing', `${h.selfIntersecting.count}${h.selfIntersecting.complete ? '' : ' or more'}`],
    ['crumbs', String(h.crumbs.count)],
  ]
  return `${name}: ${h.sound ? 'sound' : 'has defects'}\n${rows.map(([k, v]) => `  ${k.padEnd(30)}${v}`).join('\n')}\n`
}
