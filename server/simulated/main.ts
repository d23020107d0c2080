import { simulatedPrinter } from './printer'
import { simulatedScale } from './scale'
import { simulatedSensor } from './sensor'
import type { DeviceConfig } from './shell'
import { simulatedStation } from './station'

/** One simulated device as a process of its own; which, it is told in UNDERCUT_SIMULATED_DEVICE. */
const KINDS = { printer: simulatedPrinter, station: simulatedStation, scale: simulatedScale, sensor: simulatedSensor }
const config = JSON.parse(process.env.UNDERCUT_SIMULATED_DEVICE ?? '{}') as DeviceConfig
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
