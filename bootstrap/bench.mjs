// npm run bench [faces]: builds, then measures. With --build-only it stops after building.
import { checkNode, npmPackages } from './install.mjs'

checkNode()
npmPackages()
const { buildNode, buildWeb } = await import('./build.mjs')
await buildNode()
if (process.argv.includes('--build-only')) await buildWeb()
else await import('../dist/node/bench.mjs')
