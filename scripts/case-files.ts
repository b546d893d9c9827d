import { readFileSync } from 'node:fs'
import { resolve } from 'node:path'

/** Says in one line why a command cannot do what it was asked, and ends it with 2. */
export function endSaying(line: string): never {
  process.stderr.write(`${line.replace(/\s*\n\s*/g, ' ')}\n`)
  process.exit(2)
}
/** The case that a file holds: all of it, or what stands under `case` beside what is expected of it. Refuses where it is no JSON. */
export function caseIn(file: string): unknown {
  let content: unknown
  try {
    content = JSON.parse(
      readFileSync(resolve(process.env.INIT_CWD ?? '.', file), 'utf8').replace(/^\uFEFF/, ''),
    )
  } catch (error) {
    const missing = (error as NodeJS.ErrnoException).code
    endSaying(
      `${file}: ${missing ? `cannot be read (${missing})` : `is not JSON: ${(error as Error).message}`}`,
    )
  }
  return typeof content === 'object' && content !== null && 'case' in content ? content.case : content
}
