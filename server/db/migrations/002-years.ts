import type { Knex } from 'knex'

/** Tables with dates, and their columns that hold a wall time or a civil date. */
const wallTimes = {
  items: ['opens', 'due', 'closes'],
  section_dates: ['opens', 'due', 'closes'],
  run_entries: ['opens', 'due', 'closes'],
  extensions: ['due'],
}
const civilDates = {
  terms: ['classes_from', 'classes_to'],
  courses: ['enrol_from', 'enrol_to', 'open_from', 'open_to'],
  grades: ['graded_on'],
}

/** Dates of a year outside 1970 to 2199 are mistakes (docs/dates.md, section 2): the database takes none, whoever writes. */
export async function boundYears(db: Knex): Promise<void> {
  const bounds = (column: string, from: string, to: string): string =>
    `ADD CONSTRAINT ${column}_year CHECK (${column} IS NULL OR ${column} BETWEEN '${from}' AND '${to}')`
  const alter = async (tables: Record<string, string[]>, from: string, to: string): Promise<void> => {
    for (const [table, columns] of Object.entries(tables))
      await db.raw(`ALTER TABLE ${table} ${columns.map(column => bounds(column, from, to)).join(', ')}`)
  }
  await alter(wallTimes, '1970-01-01T00:00', '2199-12-31T23:59')
  await alter(civilDates, '1970-01-01', '2199-12-31')
}
