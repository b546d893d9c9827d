// Which column type holds an identifier best? A run of 2 000 items, as `server/runs` writes it, against tables whose
// identifiers are CHAR(36) ascii_bin and tables whose identifiers are BINARY(16); both hold ten such courses already.
// Prints medians and their ratio. Needs DB_HOST, DB_PORT, DB_USER and DB_PASSWORD (./start prints where they are).
import { addressFromEnvironment, connect } from '../server/db/connection'
import { newId } from '../server/db/rows'

const items = 2000
const rounds = 15
const db = connect(addressFromEnvironment())
const median = (values: number[]): number => values.sort((a, b) => a - b)[Math.floor(values.length / 2)] ?? 0

interface Kind {
  name: string
  type: string
  value: (id: string) => string | Buffer
}
const kinds: Kind[] = [
  { name: 'char36', type: 'CHAR(36) CHARACTER SET ascii COLLATE ascii_bin', value: id => id },
  { name: 'binary16', type: 'BINARY(16)', value: id => Buffer.from(id.replaceAll('-', ''), 'hex') },
]
const tables = ({ name, type }: Kind): string[] => [
  `CREATE TABLE bench_${name}_courses (id ${type} PRIMARY KEY)`,
  `CREATE TABLE bench_${name}_items (course_id ${type} NOT NULL, lineage ${type} NOT NULL, parent_lineage ${type} NULL,
     position INT NOT NULL, title VARCHAR(500) NOT NULL, category_lineage ${type} NULL,
     body_hash CHAR(64) CHARACTER SET ascii COLLATE ascii_bin NULL, settings JSON NOT NULL, due CHAR(16) NULL,
     PRIMARY KEY (course_id, lineage), INDEX (body_hash), FOREIGN KEY (course_id) REFERENCES bench_${name}_courses (id))`,
  `CREATE TABLE bench_${name}_entries (run_id ${type} NOT NULL, lineage ${type} NOT NULL, parent_lineage ${type} NULL,
     position INT NOT NULL, due CHAR(16) NULL, reasons JSON NULL, PRIMARY KEY (run_id, lineage))`,
]
const dropAll = async (): Promise<void> => {
  for (const { name } of kinds)
    for (const table of ['items', 'entries', 'courses'])
      await db.raw(`DROP TABLE IF EXISTS bench_${name}_${table}`)
}

async function newCourse(kind: Kind): Promise<string> {
  const id = newId()
  await db(`bench_${kind.name}_courses`).insert({ id: kind.value(id) })
  return id
}
async function fill(kind: Kind, course: string, lineages: readonly string[]): Promise<void> {
  const parent = kind.value(newId())
  const rows = lineages.map((lineage, position) => ({
    course_id: kind.value(course),
    lineage: kind.value(lineage),
    parent_lineage: parent,
    position,
    title: `Shore log ${position}`,
    category_lineage: parent,
    body_hash: null,
    settings: '{}',
    due: '2026-09-11T23:59',
  }))
  for (let at = 0; at < rows.length; at += 500)
    await db(`bench_${kind.name}_items`).insert(rows.slice(at, at + 500))
}

/** One run: entries from Node, then the items set by set, as a run writes them. Milliseconds. */
async function run(kind: Kind, source: string, lineages: readonly string[]): Promise<number> {
  const target = await newCourse(kind)
  const runId = kind.value(newId())
  const reasons = JSON.stringify({ flags: [], reasons: [{ field: 'due', code: 'keep-week' }] })
  const start = performance.now()
  await db.transaction(async trx => {
    const rows = lineages.map((lineage, position) => ({
      run_id: runId,
      lineage: kind.value(lineage),
      parent_lineage: null,
      position,
      due: '2027-01-15T23:59',
      reasons,
    }))
    for (let at = 0; at < rows.length; at += 500)
      await trx(`bench_${kind.name}_entries`).insert(rows.slice(at, at + 500))
    await trx.raw(
      `INSERT INTO bench_${kind.name}_items SELECT ?, s.lineage, e.parent_lineage, e.position, s.title,
         s.category_lineage, s.body_hash, s.settings, e.due
       FROM bench_${kind.name}_entries e
       JOIN bench_${kind.name}_items s ON s.course_id = ? AND s.lineage = e.lineage WHERE e.run_id = ?`,
      [kind.value(target), kind.value(source), runId],
    )
  })
  return performance.now() - start
}

await dropAll()
const setUps = []
for (const kind of kinds) {
  for (const statement of tables(kind)) await db.raw(statement)
  const lineages = Array.from({ length: items }, newId)
  const source = await newCourse(kind)
  await fill(kind, source, lineages)
  for (let other = 0; other < 9; other++) await fill(kind, await newCourse(kind), lineages)
  setUps.push({ kind, source, lineages, times: [] as number[] })
}
// In turns, so that whatever else the machine does meets both alike.
for (let round = 0; round < rounds; round++)
  for (const { kind, source, lineages, times } of setUps) times.push(await run(kind, source, lineages))
const medians = setUps.map(({ kind, times }) => ({ name: kind.name, ms: median(times) }))
for (const { name, ms } of medians)
  console.log(`${name}: ${ms.toFixed(1)} ms for a run of ${items} items (median of ${rounds})`)
const [text, bytes] = medians
if (text && bytes) console.log(`char36 / binary16: ${(text.ms / bytes.ms).toFixed(2)}`)
await dropAll()
await db.destroy()
