import { standInPrinter } from './printer'
import { standInScale } from './scale'
import { standInSensor } from './sensor'
import type { StandInConfig } from './shell'
import { standInStation } from './station'

/** One stand-in device as a process of its own; which, it is told in UNDERCUT_STANDIN. */
const KINDS = { printer: standInPrinter, station: standInStation, scale: standInScale, sensor: standInSensor }
const config = JSON.parse(process.env.UNDERCUT_STANDIN ?? '{}') as StandInConfig
process.on('SIGTERM', () => process.exit(0))
process.on('SIGINT', () => process.exit(0))
process.on('disconnect', () => process.exit(0))
KINDS[config.kind](config).then(
  () => console.log('device ready'),
  (error: unknown) => {
    console.error('The simulated device cannot start:', error)
    process.exit(1)
  },
)
