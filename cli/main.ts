import { z } from 'zod'
import { operation } from '../contract/operations'
import { printerFile } from '../contract/stock'
import type { Problem } from '../core/answer'
import { applyCommand } from './apply'
import { balanceCommand, fitCommand } from './assembly'
import { usage, type Call } from './call'
import { checkCommand } from './check'
import { coatsCommand } from './coats'
import { layersCommand } from './layers'
import { nestCommand } from './nest'
import { orderCommand } from './order'
import { planCommand } from './plan'
import { recipeCommand } from './recipe'
import { sliceCommand } from './slice'
import { supportsCommand } from './supports'
import { trapCommand } from './trap'
import { say } from '../core/words/say'

const USAGE = `undercut check FILE [--json]
    Health of a sculpt. Exit 0 sound, 1 defects, 2 unreadable.
undercut apply OPS.json FILE -o OUT [--report R.json]
    Applies a list of operation records. OUT ends in .stl, .obj, .ply, .3mf or .glb. A join names its other parts by
    files beside OPS.json.
undercut fit A B [--json]
    Gaps and overlaps between two placed parts.
undercut balance ASSEMBLY.json [--json]
    Whether the assembly stands. ASSEMBLY.json: { "parts": [{ "file", "density", "infill" }], "wish" }.
undercut trap FILE [--pose X,Y,Z] [--json]
    Resin that stays in a hollow part when that direction is down, and the positions that empty it. 0 drains, 1 not.
undercut supports FILE --printer PRINTER.json [-o OUT] [--report R.json] [--json]
    Supports for a body in the orientation of its file, with the load, length and clearance of every tip. 0 holds, 1 not.
undercut nest PARTS... --printers PRINTERS.json [--aim hours|soonest] [-o PLATE.stl] [--report R.json] [--json]
    Plates for parts in the orientation of their files; FILE:3 means three copies. -o writes PLATE-1.stl and so on.
    0 all placed, 1 some fit no printer.
undercut slice FILE --printer PRINTER.json -o OUT [--report R.json]
    OUT.zip: PNG layers with a JSON manifest. OUT.3mf: the mesh with its slices. OUT.svg: outlines in true size.
undercut layers ZIP [--pitch X,Y] [--layer H] [--report R.json] [--json]
    Reads layers of any program: islands, suction cups, peel force. 0 none, 1 some, 2 unreadable.
undercut plan PIECES.json... --calendar CALENDAR.json [--seconds S] [--report R.json] [--json]
    Steps of several pieces on the hours of people and places; what is late, what is critical. 0 in time, 1 not.
undercut recipe --target L,A,B --paints P.csv [--report R.json] [--json]
    Mixes of up to four paints in twelve drops for a colour (#rrggbb is also accepted). 0 within ΔE00 2, 1 not.
    P.csv: columns name, colour (#rrggbb) or L, a, b, opacity, kind; the list that the app exports.
undercut coats STACK.json [--report R.json] [--json]
    Colours of a stack of coats, and coats to cover. STACK.json: { "undercoat", "coats": [{ "name", "mix":
    [{ "colour", "opacity", "drops" }], "film", "count", "pigment" }] }. "undercoat" is grey, white, black, zenithal
    or the #rrggbb of a tinted primer. 0 all cover, 1 one does not.
undercut order SCHEME.json [--report R.json] [--json]
    The order of coats that costs least in masks, cleaning and risk. SCHEME.json: { "regions": [{ "id", "name", "area" }],
    "borders": [{ "a", "b", "mm" }], "coats": [{ "id", "region", "paint", "spray", "handsOn", "lightness", "hides" }],
    "order" }. 0 rules kept, 1 the given order breaks some.
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
    err(`undercut: ${say(p.message)}\n`)
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
  const known = COMMANDS[command!]
  return known
    ? known({ words: rest, flags, out, fail })
    : fail(usage(`There is no command "${command}". Try undercut --help.`), 2)
}

const COMMANDS: Record<string, (call: Call) => Promise<number>> = {
  check: checkCommand,
  apply: applyCommand,
  fit: fitCommand,
  balance: balanceCommand,
  trap: trapCommand,
  supports: supportsCommand,
  layers: layersCommand,
  nest: nestCommand,
  plan: planCommand,
  slice: sliceCommand,
  recipe: recipeCommand,
  coats: coatsCommand,
  order: orderCommand,
}

const VALUED = [
  '-o',
  '--report',
  '--printer',
  '--printers',
  '--aim',
  '--pose',
  '--pitch',
  '--layer',
  '--calendar',
  '--seconds',
  '--target',
  '--paints',
]
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
