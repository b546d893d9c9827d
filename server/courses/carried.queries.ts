import type { Knex } from 'knex'
import type { SaidBy } from '../../core/gather/saying'
import { partValuesOf } from '../../core/carry/again'
import type { CarriedBase } from '../../core/carry/base'
import { packed, unpacked, type Packed } from '../db/rows'
import { loadOutline } from './content.queries'

/** What was carried into a course last, or was seen and declined, and how its template's things came. */
export async function loadBases(db: Knex, courseId: string): Promise<readonly CarriedBase[]> {
  const row = await db('carried_bases').where({ course_id: courseId }).first('bases')
  return row ? unpacked(row.bases) : []
}
/** Under which keys of a course the things of its sources stand, where those are others: a page that took an empty place. */
export async function standIns(db: Knex, courseId: string): Promise<Map<string, string>> {
  const bases = await loadBases(db, courseId)
  const stand = bases.filter(({ how, source, lineage }) => !notStanding.has(how) && source !== lineage)
  return new Map(stand.map(({ source, lineage }) => [source, lineage]))
}
const notStanding: ReadonlySet<CarriedBase['how']> = new Set(['template', 'left'])
/** A thing of the shell may be known by what its template brought, by what a file brought, and by what a run did. */
const keyOf = ({ how, source, file }: CarriedBase): string =>
  `${how === 'template' ? 'template' : file ? 'file' : 'run'} ${source}`
/** What was kept `before`, with what is known now; of what was kept of a thing before, this takes the place. */
export const packedBases = (
  before: readonly CarriedBase[],
  bases: readonly CarriedBase[],
): Packed<readonly CarriedBase[]> =>
  packed([...new Map([...before, ...bases].map(base => [keyOf(base), base])).values()])
/** Keeps what the next run compares with. */
export async function keepBases(
  db: Knex,
  courseId: string,
  bases: Packed<readonly CarriedBase[]>,
): Promise<void> {
  await db('carried_bases').insert({ course_id: courseId, bases }).onConflict('course_id').merge()
}
/** Keeps how everything of a course came, by its template or by files: what differs from that later was touched. `said`: by identifiers. */
export async function keepAsCame(
  db: Knex,
  courseId: string,
  by: 'template' | 'file',
  said: ReadonlyMap<string, SaidBy> = new Map(),
): Promise<void> {
  const nodes = await loadOutline(db, courseId)
  const bases = nodes.map((node): CarriedBase => ({
    source: node.lineage,
    lineage: node.lineage,
    type: node.type,
    how: by === 'template' ? 'template' : 'carried',
    parts: partValuesOf(node, { ...node, dates: node }),
    ...(by === 'file' && { file: true, by: said.get(node.identifier ?? '') ?? {} }),
  }))
  await addBases(db, courseId, bases)
}
/** Keeps more of what is known of a course; of one that holds nothing there is nothing to keep. */
export async function addBases(db: Knex, courseId: string, bases: readonly CarriedBase[]): Promise<void> {
  if (bases.length > 0) await keepBases(db, courseId, packedBases(await loadBases(db, courseId), bases))
}
