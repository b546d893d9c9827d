// npm run fuzz -- [INPUTS] [--seed N] [--target NAME] [--at INDEX] : tries changed and made-up files against every reader.
// What crashes, hangs or escapes is written to .data/fuzz for a look; put the file into tests/fuzz/cases once it is mended.
import { mkdirSync, writeFileSync } from 'node:fs'
import { fileURLToPath } from 'node:url'
import { parseArgs } from 'node:util'
import { targets, type Target } from '../tests/fuzz/inputs'
import { fuzz } from '../tests/fuzz/run'

const { values, positionals } = parseArgs({
  allowPositionals: true,
  options: { seed: { type: 'string', default: '1' }, target: { type: 'string' } },
})
const inputs = Number(positionals[0] ?? 20_000)
const seed = Number(values.seed)
if (
  !Number.isSafeInteger(inputs) ||
  inputs < 1 ||
  !Number.isSafeInteger(seed) ||
  (values.target && !targets.includes(values.target as Target))
) {
  console.error(`usage: npm run fuzz -- [INPUTS] [--seed N] [--target ${targets.join('|')}]`)
  process.exit(2)
}
const start = Date.now()
const result = await fuzz({
  seed,
  inputs,
  threads: 2,
  only: (values.target ?? null) as Target | null,
  progress: tried => process.stderr.write(`\r${tried} tried`),
})
process.stderr.write('\r')
const folder = fileURLToPath(new URL('../.data/fuzz/', import.meta.url))
if (result.found.length > 0) mkdirSync(folder, { recursive: true })
for (const found of result.found.slice(0, 50)) {
  console.log(`${found.target} ${found.index}: ${found.problem}`)
  if (found.input)
    writeFileSync(
      `${folder}${seed}-${found.target}-${found.index}`,
      'html' in found.input ? found.input.html : Buffer.from(found.input.bytes, 'base64'),
    )
}
console.log(
  `${result.tried} inputs of seed ${seed} in ${Math.round((Date.now() - start) / 1000)} s; slowest ${Math.round(result.slowest.took)} ms (${result.slowest.target} ${result.slowest.index}); ${result.found.length} crashed, hung or escaped`,
)
for (const [name, n] of Object.entries(result.counts).sort()) console.log(`  ${name}: ${n}`)
process.exitCode = result.found.length > 0 ? 1 : 0
