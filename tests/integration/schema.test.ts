import { fileURLToPath } from 'node:url'
import type { Knex } from 'knex'
import ts from 'typescript'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { allStudentData } from '../../core/student-data/student-data'
import { connect, migrate } from '../../server/db/connection'
import { selectRows } from '../../server/db/rows'
import { tablesAboutPeople } from '../../server/student-data/audit.queries'
import { freshDatabase } from '../support/database'

const root = fileURLToPath(new URL('../../', import.meta.url))
let db: Knex
beforeAll(async () => {
  db = connect(await freshDatabase('northtide_schema'))
  await migrate(db)
})
afterAll(() => db.destroy())

interface ColumnRow {
  table_name: string
  column_name: string
  column_type: string
  is_nullable: 'YES' | 'NO'
  character_set_name: string | null
  collation_name: string | null
}
const notOurs = new Set(['knex_migrations', 'knex_migrations_lock'])
async function columns(): Promise<ColumnRow[]> {
  const rows = await selectRows<ColumnRow>(
    db,
    `SELECT TABLE_NAME AS table_name, COLUMN_NAME AS column_name, COLUMN_TYPE AS column_type, IS_NULLABLE AS is_nullable,
            CHARACTER_SET_NAME AS character_set_name, COLLATION_NAME AS collation_name
     FROM information_schema.COLUMNS WHERE TABLE_SCHEMA = DATABASE() AND EXTRA NOT LIKE '%INVISIBLE%'`,
    {},
  )
  return rows.filter(row => !notOurs.has(row.table_name))
}
/** `courses.label?` : a column of a table, and whether it may be empty. */
const said = (table: string, column: string, mayBeEmpty: boolean): string =>
  `${table}.${column}${mayBeEmpty ? '?' : ''}`

/** The columns of every table as `server/db/tables.ts` declares them to Knex. */
function declaredColumns(): string[] {
  const file = `${root}server/db/tables.ts`
  const { config } = ts.readConfigFile(`${root}tsconfig.node.json`, path => ts.sys.readFile(path)) as {
    config: object
  }
  const { options } = ts.parseJsonConfigFileContent(config, ts.sys, root)
  const program = ts.createProgram([file], options)
  const checker = program.getTypeChecker()
  const source = program.getSourceFile(file)
  const tables = source?.statements.find(
    (node): node is ts.InterfaceDeclaration =>
      ts.isInterfaceDeclaration(node) && node.name.text === 'NorthtideTables',
  )
  if (!tables) throw new Error('server/db/tables.ts declares no NorthtideTables')
  return checker
    .getTypeAtLocation(tables)
    .getProperties()
    .flatMap(table =>
      checker
        .getTypeOfSymbolAtLocation(table, tables)
        .getProperties()
        .map(column => {
          const type = checker.getTypeOfSymbolAtLocation(column, tables)
          const parts = type.isUnion() ? type.types : [type]
          return said(
            table.name,
            column.name,
            parts.some(part => (part.flags & ts.TypeFlags.Null) !== 0),
          )
        }),
    )
}

describe('the schema', () => {
  it('is what the rows are declared to be: every table, every column, and whether it may be empty', async () => {
    const there = (await columns()).map(row =>
      said(row.table_name, row.column_name, row.is_nullable === 'YES'),
    )
    expect(declaredColumns().sort()).toEqual(there.sort())
  })
  it('ties no foreign key to a UUID column: such keys do not hold in a cluster (Galera 26.4)', async () => {
    expect((await columns()).filter(row => row.column_type === 'uuid')).toEqual([])
  })
  it('has identifiers of one type on both ends of every foreign key', async () => {
    const keys = await selectRows<{ name: string; child: string; parent: string }>(
      db,
      `SELECT CONCAT(k.TABLE_NAME, '.', k.COLUMN_NAME) AS name,
              CONCAT(c.COLUMN_TYPE, ' ', COALESCE(c.COLLATION_NAME, '')) AS child,
              CONCAT(p.COLUMN_TYPE, ' ', COALESCE(p.COLLATION_NAME, '')) AS parent
       FROM information_schema.KEY_COLUMN_USAGE k
       JOIN information_schema.COLUMNS c
         ON c.TABLE_SCHEMA = k.TABLE_SCHEMA AND c.TABLE_NAME = k.TABLE_NAME AND c.COLUMN_NAME = k.COLUMN_NAME
       JOIN information_schema.COLUMNS p
         ON p.TABLE_SCHEMA = k.REFERENCED_TABLE_SCHEMA AND p.TABLE_NAME = k.REFERENCED_TABLE_NAME
         AND p.COLUMN_NAME = k.REFERENCED_COLUMN_NAME
       WHERE k.TABLE_SCHEMA = DATABASE() AND k.REFERENCED_TABLE_NAME IS NOT NULL`,
      {},
    )
    expect(keys.length).toBeGreaterThan(30)
    expect(keys.filter(key => key.child !== key.parent)).toEqual([])
  })
  it('keeps identifiers as ASCII compared byte by byte', async () => {
    const ids = (await columns()).filter(row => row.column_type === 'char(36)')
    expect(ids.length).toBeGreaterThan(40)
    expect(ids.filter(row => row.collation_name !== 'ascii_bin')).toEqual([])
  })
  it('takes no date of a year in which none can lie, whoever writes it', async () => {
    const dated = (await columns()).filter(row =>
      /^(opens|due|closes|classes_from|classes_to|enrol_from|enrol_to|open_from|open_to|graded_on)$/.test(
        row.column_name,
      ),
    )
    const checks = await selectRows<{ name: string; clause: string }>(
      db,
      `SELECT CONCAT(TABLE_NAME, '.', REPLACE(CONSTRAINT_NAME, '_year', '')) AS name, CHECK_CLAUSE AS clause
       FROM information_schema.CHECK_CONSTRAINTS WHERE CONSTRAINT_SCHEMA = DATABASE()`,
      {},
    )
    const checked = new Set(checks.filter(({ clause }) => clause.includes('2199')).map(({ name }) => name))
    expect(dated.length).toBeGreaterThan(13)
    expect(
      dated.map(row => said(row.table_name, row.column_name, false)).filter(each => !checked.has(each)),
    ).toEqual([])
    const term = { id: '1', code: 'x', name: 'x', time_zone: 'UTC', calendar: '{}', classes_to: '2027-04-09' }
    const insert = (classes_from: string) => db.raw('INSERT INTO terms SET ?', [{ ...term, classes_from }])
    await expect(insert('0027-01-08')).rejects.toThrow(/classes_from_year/)
    await expect(insert('2027-01-08')).resolves.toBeDefined()
  })
  it('has the columns that each kind of student data says', async () => {
    const all = await columns()
    for (const kind of allStudentData) {
      const ofTable = all.filter(row => row.table_name === kind.name)
      for (const [column, type] of Object.entries(kind.columns))
        expect(ofTable.find(row => row.column_name === column)?.is_nullable, `${kind.name}.${column}`).toBe(
          type.endsWith('?') ? 'YES' : 'NO',
        )
    }
  })
  it('says of every table with a person or an enrolment in it about whom it can be: the audit asks by that list', async () => {
    const rows = await selectRows<{ name: string; refers: string }>(
      db,
      `SELECT DISTINCT TABLE_NAME AS name, REFERENCED_TABLE_NAME AS refers FROM information_schema.KEY_COLUMN_USAGE
       WHERE TABLE_SCHEMA = DATABASE() AND REFERENCED_TABLE_NAME IN ('people', 'enrolments')`,
      {},
    )
    const named = (await columns()).filter(({ column_name: column }) =>
      /person|enrolment|student/.test(column),
    )
    const tables = new Set([...rows.map(({ name }) => name), ...named.map(({ table_name: table }) => table)])
    expect([...tables].sort()).toEqual(Object.keys(tablesAboutPeople).sort())
    // What hangs off an enrolment is student data, or what was kept aside of it.
    const hanging = rows.filter(({ refers }) => refers === 'enrolments').map(({ name }) => name)
    expect(hanging.sort()).toEqual(allStudentData.map(({ name }) => name as string).sort())
  })
})
