// npm run rooms: imports run one way, between rooms and between the parts of core. The rules are in .dependency-cruiser.cjs.
import { spawnSync } from 'node:child_process'
import { join } from 'node:path'
import { root } from './install.mjs'

const ROOMS = ['core', 'contract', 'server', 'web', 'demo', 'cli']
const cruise = join(root, 'node_modules', '.bin', 'depcruise')
const { status } = spawnSync(cruise, ['--config', '.dependency-cruiser.cjs', ...ROOMS], { cwd: root, stdio: 'inherit' })
process.exit(status ?? 1)
