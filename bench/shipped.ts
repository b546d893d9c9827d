import { fileURLToPath } from 'node:url'
import { bundle } from '../scripts/build-worker'

/** The server's functions that are timed, bundled as they are shipped. Each `name` has what it remembers to itself, as each thread has. */
export async function shipped(name: string): Promise<typeof import('./timed')> {
  const out = fileURLToPath(new URL('../node_modules/.cache/northtide/timed.mjs', import.meta.url))
  await bundle('bench/timed.ts', out)
  return (await import(`${out}?${name}`)) as typeof import('./timed')
}
