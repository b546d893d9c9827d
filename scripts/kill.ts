// npm run kill [-- N] : kills the application, and the database, N times each (20 unless said) while a run goes on; no shell may be half done.
import { killMoments, type Moment } from '../tests/kill/kill'

const times = Number(process.argv[2] ?? 20)
const begun = Date.now()
const moments = await killMoments(times, ({ victim, after, told, held, finished, faults }: Moment) =>
  console.log(
    `${victim.padEnd(12)} after ${String(after).padStart(4)} ms   told ${String(told ?? 'nothing').padEnd(8)} holds ${held.padEnd(11)} ${finished === null ? 'not asked for' : `done ${finished.toFixed(1)} s later`} ${faults.join('; ')}`,
  ),
)
const bad = moments.filter(moment => moment.faults.length > 0).length
const waits = moments.flatMap(({ finished }) => finished ?? []).sort((a, b) => a - b)
const held = (what: Moment['held']): number => moments.filter(moment => moment.held === what).length
console.log(
  `\n${moments.length} kills in ${Math.round((Date.now() - begun) / 1000)} s: ${held('everything')} shells whole, ${held('nothing')} untouched, ${held('half')} half done; ${bad} with a fault. Runs that were cut off went on by themselves and were done after ${(waits.at(-1) ?? 0).toFixed(1)} s at most (median ${(waits[waits.length >> 1] ?? 0).toFixed(1)} s).`,
)
process.exit(bad > 0 ? 1 : 0)
