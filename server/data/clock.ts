/** Ahead of the machine's clock, ms: tests say by UNDERCUT_CLOCK, an ISO moment, when it is as the process starts. */
const started = Date.parse(process.env.UNDERCUT_CLOCK ?? '')
const ahead = Number.isNaN(started) ? 0 : started - Date.now()

/** Now by the server's clock, ms since 1970. Everything that a date or a plan depends on asks here. */
export const now = (): number => Date.now() + ahead
export const rightNow = (): Date => new Date(now())
