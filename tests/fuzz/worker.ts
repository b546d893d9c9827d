// The thread that tries inputs. It may read nothing but what it is given, write nothing and reach nobody: whatever does is an escape.
import fs from 'node:fs'
import { createRequire, syncBuiltinESMExports } from 'node:module'
import { parentPort, workerData } from 'node:worker_threads'
import { tryInput } from './check'
import { inputAt, inputsOf, targets, type Target } from './inputs'

const { seed, from, to, step, only } = workerData as {
  seed: number
  from: number
  to: number
  step: number
  only: Target | null
}
const inputs = inputsOf()
let escape: string | null = null
function guard(module: Record<string, unknown>, what: string, names: readonly string[]): void {
  for (const name of names)
    if (typeof module[name] === 'function')
      module[name] = (...given: unknown[]) => {
        escape = `${what}.${name}(${String(given[0])})`
        throw new Error(`escape: ${escape}`)
      }
}
const need = createRequire(import.meta.url)
const modules = {
  fs,
  promises: fs.promises,
  net: need('node:net'),
  dns: need('node:dns'),
  http: need('node:http'),
  https: need('node:https'),
  child: need('node:child_process'),
} as unknown as Record<string, Record<string, unknown>>
guard(modules.fs!, 'fs', [
  'open',
  'openSync',
  'readFile',
  'readFileSync',
  'writeFile',
  'writeFileSync',
  'createWriteStream',
  'createReadStream',
  'mkdir',
  'mkdirSync',
  'mkdtemp',
  'mkdtempSync',
  'symlink',
  'symlinkSync',
  'unlink',
  'unlinkSync',
  'rm',
  'rmSync',
  'appendFile',
  'appendFileSync',
])
guard(modules.promises!, 'fs.promises', [
  'open',
  'readFile',
  'writeFile',
  'mkdir',
  'mkdtemp',
  'symlink',
  'unlink',
  'rm',
  'appendFile',
])
guard(modules.net!, 'net', ['connect', 'createConnection'])
guard(modules.dns!, 'dns', ['lookup', 'resolve'])
for (const name of ['http', 'https']) guard(modules[name]!, name, ['request', 'get'])
guard(modules.child!, 'child_process', [
  'spawn',
  'exec',
  'execFile',
  'fork',
  'spawnSync',
  'execSync',
  'execFileSync',
])
globalThis.fetch = () => {
  escape = 'fetch'
  throw new Error('escape: fetch')
}
syncBuiltinESMExports()

for (let index = from; index < to; index += step) {
  const target = only ?? targets[index % targets.length]!
  const input = inputAt(inputs[target], seed, index)
  const start = performance.now()
  parentPort!.postMessage({ type: 'begin', index, target })
  let problem: string | null = null
  let outcome = 'broken'
  try {
    outcome = await tryInput(input)
  } catch (error) {
    problem = error instanceof Error ? (error.stack ?? error.message) : String(error)
  }
  if (escape) {
    problem = `escape: ${escape}`
    escape = null
  }
  const took = performance.now() - start
  if (problem)
    parentPort!.postMessage({
      type: 'found',
      index,
      target,
      problem,
      input:
        'html' in input
          ? { html: input.html }
          : { name: input.name, bytes: Buffer.from(input.bytes).toString('base64') },
    })
  parentPort!.postMessage({ type: 'end', index, target, outcome, took })
}
parentPort!.postMessage({ type: 'done' })
