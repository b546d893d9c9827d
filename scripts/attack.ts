// npm run attack [-- --quick] [WORDS] : attacks the built application on a server of its own on loopback, and prints what came of it.
import { database } from '../tests/attack/database'
import { doors } from '../tests/attack/doors'
import { http } from '../tests/attack/http'
import { load } from '../tests/attack/load'
import { signIns } from '../tests/attack/sign-ins'
import { text } from '../tests/attack/text'
import { makeWorld } from '../tests/attack/world'
import { useServer } from '../tests/support/database'

const quick = process.argv.includes('--quick')
const words = process.argv.slice(2).filter(each => !each.startsWith('--'))
const parts = {
  'Who may': doors,
  'Signing in': signIns,
  'Staying up': load,
  HTTP: http,
  Text: text,
  Database: database,
}
console.log('| came to  | part       | took    | attack | what came of it |\n| --- | --- | --- | --- | --- |')
const stopServer = useServer()
const world = await makeWorld()
let gaveWay = 0
let tried = 0
try {
  for (const [part, attacks] of Object.entries(parts)) {
    for (const attack of attacks) {
      if (quick && !attack.quick) continue
      if (words.some(word => !attack.name.includes(word))) continue
      tried++
      const begun = performance.now()
      const outcome = await attack.run(world).then(
        what => ({ held: true, what }),
        (error: unknown) => ({ held: false, what: error instanceof Error ? error.message : String(error) }),
      )
      if (!outcome.held) gaveWay++
      const seconds = ((performance.now() - begun) / 1000).toFixed(1)
      console.log(
        `| ${outcome.held ? 'held    ' : 'GAVE WAY'} | ${part.padEnd(10)} | ${seconds.padStart(5)} s | ${attack.name} | ${outcome.what} |`,
      )
    }
  }
} finally {
  await world.stop()
  stopServer()
}
console.log(`\n${tried} attacks, ${tried - gaveWay} held, ${gaveWay} gave way`)
process.exit(gaveWay > 0 ? 1 : 0)
