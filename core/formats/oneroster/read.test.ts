import { describe, expect, it } from 'vitest'
import { memoryArchive } from '../../../tests/support/archives'
import { readOneRoster } from './read'

// Made by hand after the CSV binding of 1EdTech OneRoster 1.1 (column names from memory).
const manifest = (...tables: string[]): string =>
  [
    'propertyName,value',
    'manifest.version,1.0',
    'oneroster.version,1.1',
    ...tables.map(table => `file.${table},bulk`),
  ].join('\r\n')
const orgs =
  'sourcedId,status,dateLastModified,name,type,identifier,parentSourcedId\r\no1,active,,School,school,,\r\n'
const users =
  'sourcedId,status,dateLastModified,enabledUser,orgSourcedIds,role,username,userIds,givenName,familyName\r\n'
const read = (files: Record<string, string>) =>
  readOneRoster(
    memoryArchive('bundle.zip', {
      'manifest.csv': manifest(...Object.keys(files).map(name => name.replace('.csv', ''))),
      ...files,
    }),
  )
const said = (findings: readonly { where: string; message: string }[]) =>
  findings.map(finding => `${finding.where}: ${finding.message}`)

describe('OneRoster 1.1 CSV', () => {
  it('reads any order of columns, a byte order mark, quoted line breaks, and leaves out rows to be deleted', async () => {
    const { roster, findings, toBeDeleted } = await read({
      'orgs.csv':
        '\uFEFFname,type,sourcedId,status\r\n"The ""Old""\r\nSchool",school,o1,active\r\nGone,school,o2,tobedeleted\r\n',
    })
    expect(roster.orgs).toEqual([
      { sourcedId: 'o1', name: 'The "Old"\r\nSchool', type: 'school', identifier: '', parentSourcedId: '' },
    ])
    expect(said(findings)).toEqual(['orgs.csv: 1 row is marked as to be deleted; it is not among those read'])
    expect(toBeDeleted.orgs).toEqual(['o2'])
  })
  it('names row and column of what is wrong and reads the sound rows', async () => {
    const { roster, findings } = await read({
      'orgs.csv': orgs,
      'users.csv': `${users}p1,active,,true,o1,student,p1,,Ann,Ash\r\np1,active,,true,o1,student,p1,,Ann,Twice\r\np2,active,,true,o1,captain,p2,,Bo,Birch\r\np3,active,,true,o1,student,p3,,,\r\n`,
      'academicSessions.csv':
        'sourcedId,status,dateLastModified,title,type,startDate,endDate\r\ns1,active,,Autumn,term,2026-02-30,2026-12-01\r\ns2,active,,Spring,term,2027-01-06,2027-04-09\r\n',
      'courses.csv':
        'sourcedId,status,dateLastModified,schoolYearSourcedId,title,courseCode,grades,orgSourcedId\r\nc1,active,,,Sea,SEA 1,,o1\r\nc2,active,,,Air,AIR 1,,o9\r\n',
    })
    expect([
      roster.users.map(row => row.sourcedId),
      roster.academicSessions.map(row => row.sourcedId),
      roster.courses.map(row => row.sourcedId),
    ]).toEqual([
      ['p1', 'p2'],
      ['s1', 's2'],
      ['c1', 'c2'],
    ])
    expect(said(findings)).toEqual([
      'users.csv row 3, sourcedId: p1 stands in an earlier row too; this one was left out',
      'users.csv row 4, role: "captain" is not one of administrator, aide, guardian, parent, proctor, relative, student, teacher; the value was left out',
      'users.csv row 5, familyName: is empty; the row was left out',
      'academicSessions.csv row 2, startDate: "2026-02-30" is not a date (YYYY-MM-DD); the value was left out',
      'courses.csv row 3, orgSourcedId: o9 is not in orgs.csv; the value was left out',
    ])
  })
  it('reads all thirteen tables, and the modes of the manifest', async () => {
    const files = {
      'manifest.csv':
        'propertyName,value\nmanifest.version,1.0\noneroster.version,1.1\nfile.orgs,bulk\nfile.users,delta\nfile.enrollments,bulk\nfile.classes,absent\nfile.resources,sideways\nfile.demographics,bulk\n',
      'orgs.csv': orgs,
      'users.csv': `${users}p1,active,,true,o9,student,p1,,Ann,Ash\r\n`,
      'classes.csv': 'sourcedId\n',
      'resources.csv': 'sourcedId,vendorResourceId\nr1,v1\n',
      'demographics.csv': 'sourcedId,birthDate\np1,2000-01-01\n',
      'readme.txt': 'hello',
      'enrollments.csv':
        'sourcedId,status,dateLastModified,classSourcedId,userSourcedId,role\r\ne1,active,2026-01-02T03:04:05.000Z,c1,p7,student\r\n\r\ne2,expired,yesterday,c1,p8,student\r\ne3,,,c1,p9,student,extra\r\n',
    }
    const { roster, modes, findings } = await readOneRoster(memoryArchive('bundle.zip', files))
    expect([modes.orgs, modes.users, modes.classes, modes.resources, modes.results]).toEqual([
      'bulk',
      'delta',
      'absent',
      'bulk',
      'absent',
    ])
    // Users are a delta and classes are not there: an enrolment may name what an earlier bundle held. The class names o9, which orgs.csv would have.
    expect([
      roster.enrollments.map(row => row.sourcedId),
      roster.users[0]!.orgSourcedIds,
      roster.resources.length,
      roster.demographics,
    ]).toEqual([['e1', 'e3'], '', 1, [{ sourcedId: 'p1' }]])
    expect(said(findings)).toEqual([
      'classes.csv: is in the bundle and the manifest says it is absent; it was not read',
      'manifest.csv, file.resources: "sideways" is not one of absent, bulk, delta; the table was read as bulk',
      'readme.txt: is no table of OneRoster 1.1; it was not read',
      'enrollments.csv row 4, status: "expired" is not one of active, tobedeleted; the row was left out',
      'enrollments.csv row 4, dateLastModified: "yesterday" is not an instant (YYYY-MM-DDThh:mm:ssZ); the value was left out',
      'enrollments.csv row 5: has 7 values for 6 columns; the last 1 were left out',
      'users.csv row 2, orgSourcedIds: o9 is not in orgs.csv; the value was left out',
    ])
  })
  it('reads semicolons, tabs, mixed line ends and windows-1252 as spreadsheets write them, and says so', async () => {
    const mixed = 'sourcedId;name;type\r\no1;"Öst; och\nväst";school\no2;B;school\r\n'
    const { roster, findings } = await readOneRoster(
      memoryArchive('bundle.zip', {
        'manifest.csv': manifest('orgs'),
        'orgs.csv': Uint8Array.from(mixed, letter => letter.charCodeAt(0)),
      }),
    )
    expect(roster.orgs.map(row => row.name)).toEqual(['Öst; och\nväst', 'B'])
    expect(said(findings)).toEqual([
      'orgs.csv: is not UTF-8. It was read as windows-1252: check accented letters',
      'orgs.csv: its values are separated by semicolons, not commas',
    ])
  })
  it('lists so many findings of a kind and counts the others', async () => {
    const rows = Array.from({ length: 1000 }, (_, at) => `o${at},active,,,school,,`).join('\r\n')
    const { findings } = await read({ 'orgs.csv': orgs.split('\r\n')[0] + '\r\n' + rows })
    expect([findings.length, findings.at(-1)!.message]).toEqual([
      201,
      'and 800 more like it; the last: is empty; the row was left out',
    ])
  })
  const classes = (...rows: string[]): Record<string, string> => ({
    'orgs.csv': orgs,
    'users.csv': `${users}p1,active,,true,o1,student,p1,,Ann,Ash\r\np2,active,,true,o1,student,p2,,Bo,Birch\r\n`,
    'academicSessions.csv':
      'sourcedId,title,type,startDate,endDate\r\ns1,Autumn,term,2026-09-02,2026-12-04\r\n',
    'courses.csv': 'sourcedId,title,orgSourcedId\r\nc1,Sea,o1\r\n',
    'classes.csv': `sourcedId,title,courseSourcedId,schoolSourcedId,termSourcedIds\r\n${rows.join('\r\n')}\r\n`,
    'enrollments.csv':
      'sourcedId,classSourcedId,userSourcedId,role\r\ne1,k1,p1,student\r\ne2,k1,p2,student\r\ne3,k2,p1,student\r\n',
    'categories.csv': 'sourcedId,title\r\ng1,Work\r\n',
    'lineItems.csv':
      'sourcedId,title,assignDate,dueDate,classSourcedId,categorySourcedId\r\nl1,One,2026-09-08,2026-09-24T23:59:00.000Z,k1,g1\r\nl2,Two,2026-09-24,2026-09-11,k2,g1\r\n',
    'results.csv':
      'sourcedId,lineItemSourcedId,studentSourcedId,scoreStatus,score\r\nr1,l1,p1,fully graded,5\r\nr2,l1,p2,wonderful,5\r\nr3,l2,p1,submitted,4\r\n',
  })
  const k2 = 'k2,Second,c1,o1,s1'
  it('says that a most is below 0, and leaves it out', async () => {
    const { roster, findings } = await read({
      ...classes('k1,First,c1,o1,s1', k2),
      'lineItems.csv':
        'sourcedId,title,classSourcedId,categorySourcedId,resultValueMax\r\nl1,One,k1,g1,-5\r\nl2,Two,k2,g1,7.5\r\n',
    })
    expect(roster.lineItems.map(row => row.resultValueMax)).toEqual(['', '7.5'])
    expect(said(findings)).toContain(
      'lineItems.csv row 2, resultValueMax: "-5" is below 0; the value was left out',
    )
  })
  it('tells what is lost in the wake of a row once, by its cause and with counts', async () => {
    const { roster, findings } = await read(classes('k1,First,c-ghost,o1,s1', k2))
    expect(said(findings.filter(finding => finding.severity === 'error'))).toEqual([
      'classes.csv row 2, courseSourcedId: c-ghost is not in courses.csv: class k1 cannot be used, and with it 2 enrolments, 1 line item, 2 results',
    ])
    expect([roster.enrollments.length, roster.lineItems.length, roster.results.length]).toEqual([1, 1, 1])
  })
  it('tells it of a row with a fault of its own too, and of many rows that name what is nowhere', async () => {
    const files = classes('k1,First,c1,o1,s1', k2)
    const faulty = {
      ...files,
      'classes.csv': files['classes.csv']!.replace('k1,First,c1,o1', 'k1,First,,o1'),
    }
    expect(said((await read(faulty)).findings.filter(finding => finding.severity === 'error'))).toEqual([
      'classes.csv row 2, courseSourcedId: is empty; the row was left out',
      'classes.csv row 2: k1 cannot be used, and with it 2 enrolments, 1 line item, 2 results',
    ])
    const strangers = { ...files, 'users.csv': files['users.csv']!.replace('p1,active', 'p7,active') }
    expect(said((await read(strangers)).findings.filter(finding => finding.severity === 'error'))).toEqual([
      'enrollments.csv row 2, userSourcedId: p1 is not in users.csv: 2 enrolments, 2 results cannot be used',
    ])
  })
  it('refuses what depends on a table that is announced whole and missing, or holds no byte', async () => {
    const { 'users.csv': _, ...without } = classes('k1,First,c1,o1,s1', k2)
    const announced = {
      ...without,
      'manifest.csv': manifest(...Object.keys(without).map(name => name.slice(0, -4)), 'users'),
    }
    for (const files of [announced, { ...announced, 'users.csv': '' }]) {
      const { roster, findings } = await readOneRoster(memoryArchive('bundle.zip', files))
      expect([roster.enrollments.length, roster.classes.length]).toEqual([0, 2])
      expect(said(findings).join('\n')).toContain(
        'users.csv: the manifest names this file, and it is not in the bundle; with it 3 enrolments, 3 results cannot be used',
      )
    }
  })
  it('offers a table that is there though the manifest says otherwise, and reads it when asked', async () => {
    const files = { 'manifest.csv': manifest(), 'orgs.csv': orgs }
    const archive = memoryArchive('bundle.zip', files)
    const first = await readOneRoster(archive)
    expect([first.offered, first.roster.orgs]).toEqual([['orgs'], []])
    const again = await readOneRoster(archive, undefined, undefined, ['orgs'])
    expect(again.roster.orgs).toHaveLength(1)
    expect(said(again.findings)).toEqual([
      'orgs.csv: is in the bundle and the manifest does not name it; it was read all the same',
    ])
  })
  it('keeps dates that are instants, and says what else is odd: dates the wrong way round, circles, columns, words', async () => {
    const files = classes('k1,First,c1,o1,s1', k2)
    const { roster, findings } = await read({
      ...files,
      'orgs.csv':
        'sourcedId,name,type,parentSourcedId,motto,metadata.colour\r\no1,School,school,o2,hope,blue\r\no2,Faculty,guild,o1,,\r\n',
    })
    expect(roster.lineItems.map(row => row.dueDate)).toEqual(['2026-09-24T23:59:00.000Z', '2026-09-11'])
    expect(roster.orgs.map(row => row.parentSourcedId)).toEqual(['o2', ''])
    expect(said(findings)).toEqual([
      'orgs.csv row 1: OneRoster 1.1 has no column "motto"; what stands there was not read',
      'orgs.csv row 3, type: "guild" is not one of department, district, local, national, school, state; the value was left out',
      'orgs.csv row 3, parentSourcedId: its parents lead round in a circle (o1, o2); this parent was left out',
      'lineItems.csv row 3, dueDate: 2026-09-11 lies before assignDate, 2026-09-24; both are kept as they came',
      'results.csv row 3, scoreStatus: "wonderful" is not one of exempt, fully graded, not submitted, partially graded, submitted; the value was left out',
    ])
  })
  it('refuses what is no such bundle, by name and with the reason', async () => {
    const refused = (files: Record<string, string>, pattern: RegExp | string) =>
      expect(readOneRoster(memoryArchive('bundle.zip', files))).rejects.toThrow(pattern)
    await refused({ 'a.csv': '' }, /holds no manifest.csv/)
    await refused(
      { 'manifest.csv': 'propertyName,value\r\noneroster.version,1.2\r\n' },
      /is OneRoster 1.2; version 1.1 is read here/,
    )
    await refused(
      { 'manifest.csv': manifest('orgs'), 'orgs.csv': 'sourcedId,type\r\no1,school\r\n' },
      'orgs.csv: has no column name',
    )
    await refused(
      { 'manifest.csv': manifest('orgs'), 'orgs.csv': 'sourcedId,name,type,name\r\no1,A\r\n' },
      'orgs.csv: has the column name twice',
    )
    await refused(
      { 'manifest.csv': manifest('orgs'), 'orgs.csv': 'sourcedId,name,type\r\no1,"A,school\r\n' },
      /row 2: a quotation mark is not closed/,
    )
    await refused(
      { 'manifest.csv': manifest('orgs'), 'orgs.csv': 'sourcedId,name,type\r\no1,A\0,school\r\n' },
      /zero bytes/,
    )
  })
})
