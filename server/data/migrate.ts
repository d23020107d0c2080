import { SequelizeStorage, Umzug } from 'umzug'
import { database } from './database'
import * as initial from './migrations/001-initial'
import * as mapsByPart from './migrations/002-maps-by-part'
import * as sculpts from './migrations/003-sculpts'
import * as runs from './migrations/004-runs'
import * as bench from './migrations/005-bench'
import * as calendar from './migrations/006-calendar'
import * as mixes from './migrations/007-mixes'

/** Brings the database to this version's shape. Two processes may start at once: a lock lets one do it. */
export async function migrate(): Promise<void> {
  const umzug = new Umzug({
    migrations: [
      { name: '001-initial', ...wrap(initial) },
      { name: '002-maps-by-part', ...wrap(mapsByPart) },
      { name: '003-sculpts', ...wrap(sculpts) },
      { name: '004-runs', ...wrap(runs) },
      { name: '005-bench', ...wrap(bench) },
      { name: '006-calendar', ...wrap(calendar) },
      { name: '007-mixes', ...wrap(mixes) },
    ],
    context: database.getQueryInterface(),
    storage: new SequelizeStorage({ sequelize: database }),
    logger: undefined,
  })
  await database.transaction(async (transaction) => {
    await database.query('SELECT pg_advisory_xact_lock(720417)', { transaction })
    await umzug.up()
  })
}

type Step = typeof initial
const wrap = (step: Step): { up: () => Promise<void>; down: () => Promise<void> } => ({
  up: () => step.up(database.getQueryInterface()),
  down: () => step.down(database.getQueryInterface()),
})
