// npm run build:worker [-- OUT] : the thread that reads files, in one file beside the built application.
import { mkdirSync } from 'node:fs'
import { dirname, resolve } from 'node:path'
import { fileURLToPath } from 'node:url'
import { build } from 'esbuild'

const root = fileURLToPath(new URL('..', import.meta.url))
/** Bundles a thread, and all it needs but the database drivers, which the application brings along, into one file. */
export async function bundle(entry: string, out: string): Promise<void> {
  mkdirSync(dirname(out), { recursive: true })
  await build({
    entryPoints: [resolve(root, entry)],
    outfile: out,
    bundle: true,
    platform: 'node',
    format: 'esm',
    target: 'node20',
    logLevel: 'warning',
    absWorkingDir: root,
    legalComments: 'none',
    external: ['knex', 'mysql2', 'fast-check', 'parse5'],
    banner: {
      js: `import { createRequire as _createRequire } from 'node:module'; const require = _createRequire(import.meta.url);`,
    },
  })
}
export const buildWorker = (out: string): Promise<void> => bundle('server/work/worker.ts', out)
if (process.argv[1] === fileURLToPath(import.meta.url))
  await buildWorker(resolve(process.argv[2] ?? resolve(root, '.output/server/worker.mjs')))
