import { z } from 'zod'
import { operation } from '../contract/operations'
import { printerFile } from '../contract/stock'
import type { Problem } from '../core/answer'
import { applyCommand } from './apply'
import { balanceCommand, fitCommand } from './assembly'
import { usage, line, type Call } from './call'
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

/** Runs a command line and gives its exit code: 0 done, 1 defects or refused, 2 unreadable or misused. */
export async function run(
  args: readonly string[],
  out: (s: string) => void,
  err: (s: string) => void,
): Promise<number> {
  const { words, flags } = parse(args)
  const fail = (p: Problem, code: number): number => {
    err(`${line('cli.says', { what: p.message })}\n`)
    return code
  }
  if (flags.has('help') || words.length === 0) {
    out(`${line('cli.help')}\n`)
    if (flags.has('help'))
      out(
        `\n${line('cli.helpSchemas', {
          operations: JSON.stringify(z.toJSONSchema(operation, { io: 'input' }), null, 1),
          printer: JSON.stringify(z.toJSONSchema(printerFile, { io: 'input' }), null, 1),
        })}\n`,
      )
    return flags.has('help') ? 0 : 2
  }
  const [command, ...rest] = words
  const known = COMMANDS[command!]
  return known ? known({ words: rest, flags, out, fail }) : fail(usage('cli.usage.unknown', { command }), 2)
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
