import { line } from './call'
import { run } from './main'

process.exitCode = await run(
  process.argv.slice(2),
  (s) => process.stdout.write(s),
  (s) => process.stderr.write(s),
).catch((error: unknown) => {
  process.stderr.write(`${line('cli.fault', { why: error instanceof Error ? error.message : String(error) })}\n`)
  return 3
})
