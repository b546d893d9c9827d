// npm run build:worker [-- OUT] : the thread that reads files, in one file beside the built application.
import { mkdirSync } from 'node:fs'
import { dirname, resolve } from 'node:path'
import { fileURLToPath } from 'node:url'
import { build } from 'esbuild'

const root = fileURLToPath(new URL('..', import.meta.url))
/** Bundles `server/jobs/worker.ts`. Database drivers stay outside: the application brings them along. */
export async function buildWorker(out: string): Promise<void> {
  mkdirSync(dirname(out), { recursive: true })
  await build({
    entryPoints: [resolve(root, 'server/jobs/worker.ts')], outfile: out, bundle: true, platform: 'node', format: 'esm', target: 'node20', logLevel: 'warning', absWorkingDir: root, legalComments: 'none',
    external: ['knex', 'mysql2'], banner: { js: `import { createRequire as _createRequire } from 'node:module'; const require = _createRequire(import.meta.url);` },
  })
}
if (process.argv[1] === fileURLToPath(import.meta.url)) await buildWorker(resolve(process.argv[2] ?? resolve(root, '.output/server/worker.mjs')))
