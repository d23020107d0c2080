#!/usr/bin/env node
// The command line runs from the same bundle as the server; it is built when it is not there or is older.
import { npmPackages } from '../bootstrap/install.mjs'

npmPackages()
const { buildNode } = await import('../bootstrap/build.mjs')
await buildNode()
await import('../dist/node/cli.mjs')
