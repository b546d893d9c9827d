// npm run mutate [-- FOLDER=COUNT …] : plants small faults in the code (Stryker's), a seeded sample of each folder, and names those that no
// test sees. By hand: some ten minutes for each hundred of core; the tests of server/runs need the database, and half an hour.
import { execFileSync } from 'node:child_process'
import { createHash } from 'node:crypto'
import { readFileSync } from 'node:fs'
import { Stryker } from '@stryker-mutator/core'
import { createInstrumenter } from '@stryker-mutator/instrumenter'
import { createInjector } from 'typed-inject'

const seed = 'northtide'
const usual = { 'core/dates': 100, 'core/carry': 100, 'core/student-data': 100, 'server/runs': 100 }
// A sentence in other words is no fault of what it is said of.
const excluded = ['StringLiteral']

interface Planted {
  readonly file: string
  /** Lines from 1, columns from 0. */
  readonly range: string
  readonly what: string
  readonly replacement: string
}
const quiet = new Proxy({}, { get: () => () => false })
const instrumenter = createInjector()
  .provideValue('logger', quiet as never)
  .provideValue('getLogger', (() => quiet) as never)
  .provideValue('options', {} as never)
  .injectFunction(createInstrumenter)

const filesOf = (folder: string): string[] =>
  execFileSync('git', ['ls-files', `${folder}/*.ts`], { encoding: 'utf8' })
    .split('\n')
    .filter(file => file !== '' && !file.includes('.test.'))
async function faultsIn(folder: string): Promise<Planted[]> {
  const files = filesOf(folder).map(name => ({ name, content: readFileSync(name, 'utf8'), mutate: true }))
  const options = { plugins: null, excludedMutations: excluded, ignorers: [], noHeader: true }
  const { mutants } = await instrumenter.instrument(files, options)
  return mutants.map(({ fileName, location: { start, end }, mutatorName, replacement }) => ({
    file: fileName,
    range: `${start.line + 1}:${start.column}-${end.line + 1}:${end.column}`,
    what: mutatorName,
    replacement,
  }))
}
const keyOf = ({ file, range, what, replacement }: Planted): string =>
  [file, range, what, replacement].join('\n')
/** The same few of many each time, whatever was added between: those whose hashes come first. */
function sampleOf(all: readonly Planted[], count: number): Planted[] {
  const rank = (one: Planted): string =>
    createHash('sha256')
      .update(`${seed}\n${keyOf(one)}`)
      .digest('hex')
  return all
    .map(one => ({ one, at: rank(one) }))
    .sort((a, b) => (a.at < b.at ? -1 : 1))
    .slice(0, count)
    .map(({ one }) => one)
}
async function seenOf(folder: string, count: number): Promise<{ seen: number; of: number }> {
  const sample = sampleOf(await faultsIn(folder), count)
  const wanted = new Set(sample.map(keyOf))
  process.env.NORTHTIDE_MUTATED = folder
  const results = await new Stryker({
    testRunner: 'vitest',
    plugins: ['@stryker-mutator/vitest-runner'],
    vitest: { configFile: 'vitest.mutate.config.ts' },
    coverageAnalysis: 'perTest',
    mutator: { excludedMutations: excluded, plugins: null },
    mutate: [...new Set(sample.map(({ file, range }) => `${file}:${range}`))],
    ignorePatterns: ['/app', '/demo/make', '/docs', '/public', '/.output', '/.nuxt', '/.data'],
    concurrency: folder.startsWith('server') ? 1 : 2,
    reporters: [],
    logLevel: 'error' as never,
    tempDirName: '.stryker-tmp',
  } as never).runMutationTest()
  const told = results.flatMap(({ fileName, location: { start, end }, mutatorName, replacement, status }) => {
    // Told with lines and columns from 1.
    const range = `${start.line}:${start.column - 1}-${end.line}:${end.column - 1}`
    const one = { file: fileName.replace(`${process.cwd()}/`, ''), range, what: mutatorName, replacement }
    return wanted.has(keyOf(one)) ? [{ one: one, status }] : []
  })
  const survivors = told.filter(({ status }) => status === 'Survived' || status === 'NoCoverage')
  for (const { one, status } of survivors)
    console.log(
      `  ${status === 'Survived' ? 'survived' : 'not run '}  ${one.file}:${one.range}  ${one.what} → ${one.replacement.replace(/\s+/g, ' ').slice(0, 90)}`,
    )
  const counted = told.filter(({ status }) => status !== 'Ignored' && status !== 'CompileError')
  return { seen: counted.length - survivors.length, of: counted.length }
}

const asked = process.argv.slice(2).map(arg => arg.split('='))
const folders =
  asked.length > 0
    ? asked.map(([folder = '', n]) => [folder, Number(n ?? 100)] as const)
    : Object.entries(usual)
let [seen, of] = [0, 0]
for (const [folder, count] of folders) {
  const began = Date.now()
  const found = await seenOf(folder, count)
  console.log(`${folder}: ${found.seen} of ${found.of} seen, in ${Math.round((Date.now() - began) / 1000)} s`)
  seen += found.seen
  of += found.of
}
console.log(`${seen} of ${of} planted faults are seen (${((100 * seen) / of).toFixed(1)} %)`)
