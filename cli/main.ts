import { readFile, writeFile } from 'node:fs/promises'
import { createWriteStream } from 'node:fs'
import { basename, extname } from 'node:path'
import { Zip, ZipPassThrough } from 'fflate'
import { z } from 'zod'
import { operation, operationList } from '../contract/operations'
import { printerFile } from '../contract/stock'
import { bad, good, type Answer, type Problem } from '../core/answer'
import { writeObj } from '../core/formats/obj'
import { readSculpt } from '../core/formats/readSculpt'
import { writeStl } from '../core/formats/stl'
import { write3mf } from '../core/formats/threemf'
import { health, type Health } from '../core/mesh/health'
import { concatenate, type Mesh } from '../core/mesh/mesh'
import { slice } from '../core/print/slice'
import { applyOperation, type Operation, type OperationReport } from '../core/shape/operations'
import { manifest } from '../core/formats/manifest'

const USAGE = `undercut check FILE [--json]
    Health of a sculpt. Exit 0 sound, 1 defects, 2 unreadable.
undercut apply OPS.json FILE -o OUT [--report R.json]
    Applies a list of operation records. OUT ends in .stl, .obj or .3mf.
undercut slice FILE --printer PRINTER.json -o OUT.zip [--report R.json]
    PNG layers with a JSON manifest.
undercut --help
    This, and the schema of each operation and of a printer file.
`

/** Runs a command line and gives its exit code: 0 done, 1 defects or refused, 2 unreadable or misused. */
export async function run(args: readonly string[], out: (s: string) => void, err: (s: string) => void): Promise<number> {
  const { words, flags } = parse(args)
  const fail = (p: Problem, code: number): number => { err(`undercut: ${p.message}\n`); return code }
  if (flags.has('help') || words.length === 0) {
    out(USAGE)
    if (flags.has('help')) out(`\nOperations:\n${JSON.stringify(z.toJSONSchema(operation, { io: 'input' }), null, 1)}\n\nPrinter file:\n${JSON.stringify(z.toJSONSchema(printerFile, { io: 'input' }), null, 1)}\n`)
    return flags.has('help') ? 0 : 2
  }
  const [command, ...rest] = words
  if (command === 'check') {
    if (!rest[0]) return fail({ code: 'usage', message: 'check needs a FILE.' }, 2)
    const mesh = await load(rest[0])
    if (!mesh.ok) return fail(mesh.problem, 2)
    const h = health(mesh.value)
    out(flags.has('json') ? `${JSON.stringify({ file: basename(rest[0]), ...h, volumeMl: h.volume / 1000 }, null, 1)}\n` : describe(basename(rest[0]), h))
    return h.sound ? 0 : 1
  }
  if (command === 'apply') {
    const [opsFile, file] = rest, target = flags.get('o')
    if (!opsFile || !file || !target) return fail({ code: 'usage', message: 'apply needs OPS.json, FILE and -o OUT.' }, 2)
    const ops = await loadJson(opsFile, operationList)
    if (!ops.ok) return fail(ops.problem, 2)
    const writer = WRITERS[extname(target).toLowerCase()]
    if (!writer) return fail({ code: 'format-unknown', message: `${target}: results are written as .stl, .obj or .3mf.` }, 2)
    const input = await load(file)
    if (!input.ok) return fail(input.problem, 2)
    let mesh = input.value
    const reports: OperationReport[] = []
    for (const [i, op] of ops.value.entries()) {
      const r = await applyOperation(mesh, op as Operation)
      if (!r.ok) return fail({ ...r.problem, message: `Operation ${i + 1} (${op.kind}): ${r.problem.message}` }, 1)
      reports.push(r.value.report)
      mesh = r.value.mesh
    }
    await writeFile(target, writer(mesh))
    if (flags.has('report')) await writeFile(flags.get('report')!, JSON.stringify(reports, null, 1))
    out(`${target}: ${(mesh.triangles.length / 3).toLocaleString('en')} faces after ${reports.length} operations\n`)
    return 0
  }
  if (command === 'slice') {
    const file = rest[0], target = flags.get('o'), printerPath = flags.get('printer')
    if (!file || !target || !printerPath) return fail({ code: 'usage', message: 'slice needs FILE, --printer PRINTER.json and -o OUT.zip.' }, 2)
    const printer = await loadJson(printerPath, printerFile)
    if (!printer.ok) return fail(printer.problem, 2)
    const mesh = await load(file)
    if (!mesh.ok) return fail(mesh.problem, 2)
    const stream = createWriteStream(target)
    const zip = new Zip((error, chunk, final) => {
      if (error) throw error
      stream.write(chunk)
      if (final) stream.end()
    })
    const put = (name: string, bytes: Uint8Array): void => {
      const entry = new ZipPassThrough(name)
      zip.add(entry)
      entry.push(bytes, true)
    }
    const r = await slice(mesh.value, printer.value, printer.value.resin, put)
    if (!r.ok) { stream.destroy(); return fail(r.problem, 1) }
    put('manifest.json', new TextEncoder().encode(JSON.stringify(manifest(printer.value, printer.value.resin, r.value), null, 1)))
    zip.end()
    await new Promise<void>((resolve, reject) => stream.on('finish', () => resolve()).on('error', reject))
    if (flags.has('report')) await writeFile(flags.get('report')!, JSON.stringify(r.value, null, 1))
    out(`${target}: ${r.value.layers} layers, ${(r.value.seconds / 3600).toFixed(1)} h, ${r.value.resinMl.toFixed(1)} ml${r.value.islands.length ? `, ${r.value.islands.length} islands` : ''}${r.value.cups.length ? `, ${r.value.cups.length} suction cups` : ''}\n`)
    return 0
  }
  return fail({ code: 'usage', message: `There is no command "${command}". Try undercut --help.` }, 2)
}

const WRITERS: Record<string, (m: Mesh) => Uint8Array> = { '.stl': writeStl, '.obj': (m) => writeObj(m), '.3mf': write3mf }

function parse(args: readonly string[]): { words: string[]; flags: Map<string, string> } {
  const words: string[] = [], flags = new Map<string, string>()
  for (let i = 0; i < args.length; i++) {
    const a = args[i]!
    if (a === '-o' || a === '--report' || a === '--printer') flags.set(a.replace(/^-+/, ''), args[++i] ?? '')
    else if (a.startsWith('-')) flags.set(a.replace(/^-+/, ''), '')
    else words.push(a)
  }
  return { words, flags }
}

async function load(path: string): Promise<Answer<Mesh>> {
  try {
    const bodies = readSculpt(basename(path), new Uint8Array(await readFile(path)))
    return bodies.ok ? good(bodies.value.length === 1 ? bodies.value[0]!.mesh : concatenate(bodies.value.map((b) => b.mesh))) : bodies
  } catch (error) {
    return bad('file-unreadable', `${path}: the file cannot be opened (${(error as NodeJS.ErrnoException).code ?? 'unknown reason'}).`)
  }
}

async function loadJson<T>(path: string, schema: z.ZodType<T>): Promise<Answer<T>> {
  let text: string
  try { text = await readFile(path, 'utf8') } catch { return bad('file-unreadable', `${path}: the file cannot be opened.`) }
  let value: unknown
  try { value = JSON.parse(text) } catch (e) { return bad('json-bad', `${path}: not valid JSON (${(e as Error).message}).`) }
  const parsed = schema.safeParse(value)
  if (parsed.success) return good(parsed.data)
  const issue = parsed.error.issues[0]!
  return bad('json-schema', `${path}: at ${issue.path.join('.') || 'the top'}: ${issue.message}.`)
}

function describe(name: string, h: Health): string {
  const rows: [string, string][] = [
    ['faces', h.faces.toLocaleString('en')], ['shells', String(h.shells)], ['size', `${h.size.map((s) => s.toFixed(2)).join(' × ')} mm (${h.units})`],
    ['volume', `${(h.volume / 1000).toFixed(2)} ml`], ['area', `${(h.area / 100).toFixed(1)} cm²`],
    ['open edges', `${h.openEdges.count} in ${h.holes.count} holes`], ['edges of more than two faces', String(h.nonManifold.count)],
    ['disagreeing directions', String(h.disoriented.count)], ['shells inside out', String(h.insideOut.count)],
    ['degenerate or doubled faces', String(h.degenerate.count + h.duplicate.count)],
    ['faces crossing', `${h.selfIntersecting.count}${h.selfIntersecting.complete ? '' : ' or more'}`], ['crumbs', String(h.crumbs.count)],
  ]
  return `${name}: ${h.sound ? 'sound' : 'has defects'}\n${rows.map(([k, v]) => `  ${k.padEnd(30)}${v}`).join('\n')}\n`
}
