import type { Knex } from 'knex'
import { readLimits, type ReadLimits } from '../../core/formats/limits'
import { FormatRefusal } from '../../core/formats/refusal'
import { datesOf } from '../../core/course/dates'
import { compareSheet, type SheetComparison } from '../../core/formats/sheet/plan-dates'
import { readTable } from '../../core/formats/sheet/table'
import { isInDateTable } from '../../core/plan/exports'
import { refuse } from '../errors/refusal'
import { loadPlannedDates } from '../plans/compile'
import { isWorkbook, readWorkbook } from './files/xlsx'
import { bufferSource, openZip } from './files/zip'

/** What a sheet of dates may have. */
export const sheetBytes = 4 * 1024 * 1024
const limits: ReadLimits = {
  ...readLimits,
  entries: 200,
  unpackedBytes: 64 * 1024 * 1024,
  textBytes: 32 * 1024 * 1024,
  rows: 50_000,
}

/** The rows of a table or of a workbook's first sheet, its header first. @throws FormatRefusal */
async function rowsOf(file: string, bytes: Buffer): Promise<string[][]> {
  if (bytes.subarray(0, 2).toString('latin1') !== 'PK') {
    const rows: string[][] = []
    const { header } = readTable(file, bytes, limits, cells => rows.push(cells))
    return [[...header], ...rows]
  }
  const archive = await openZip(file, bufferSource(bytes), limits)
  if (!isWorkbook(archive)) throw new FormatRefusal('no-plan-sheet', file)
  return (await readWorkbook(file, archive, bytes, limits, 'moments')).rows
}

/**
 * What a sheet of a plan's dates, changed elsewhere, would change of the plan as it is saved. Nothing is written.
 * @throws Refusal where it cannot be read.
 */
export async function comparePlanSheet(
  db: Knex,
  id: string,
  file: string,
  bytes: Buffer,
): Promise<SheetComparison> {
  if (bytes.length === 0) throw refuse('file-empty')
  const { input, ledger } = await loadPlannedDates(db, id)
  const nodes = new Map(input.brought.merged.nodes.map(node => [node.lineage, node]))
  const items = ledger.items.flatMap(planned => {
    const node = nodes.get(planned.id)
    if (!node || !isInDateTable(node, planned)) return []
    const held = planned.flags.includes('set-by-hand')
    return [{ id: planned.id, title: node.title, held, isUnit: node.type === 'unit', ...datesOf(planned) }]
  })
  try {
    return compareSheet(file, await rowsOf(file, bytes), { plan: id, items, term: input.target.term })
  } catch (error) {
    if (!(error instanceof FormatRefusal)) throw error
    throw refuse('sheet-unreadable', { reason: error.reason, wayOn: error.wayOn })
  }
}
