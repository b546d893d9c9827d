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
    expect(said(findings)).toEqual([
      'orgs.csv: 1 rows are marked as to be deleted; they are not among those read',
    ])
    expect(toBeDeleted.orgs).toEqual(['o2'])
  })
  it('names row and column of what is wrong and reads the sound rows', async () => {
    const { roster, findings } = await read({
      'orgs.csv': orgs,
      'users.csv': `${users}p1,active,,true,o1,student,p1,,Ann,Ash\r\np1,active,,true,o1,student,p1,,Ann,Twice\r\np2,active,,true,o1,captain,p2,,Bo,Birch\r\np3,active,,true,o1,student,p3,,,Cedar\r\n`,
      'academicSessions.csv':
        'sourcedId,status,dateLastModified,title,type,startDate,endDate\r\ns1,active,,Autumn,term,2026-02-30,2026-12-01\r\ns2,active,,Spring,term,2027-01-06,2027-04-09\r\n',
      'courses.csv':
        'sourcedId,status,dateLastModified,schoolYearSourcedId,title,courseCode,grades,orgSourcedId\r\nc1,active,,,Sea,SEA 1,,o1\r\nc2,active,,,Air,AIR 1,,o9\r\n',
    })
    expect([
      roster.users.map(row => row.sourcedId),
      roster.academicSessions.map(row => row.sourcedId),
      roster.courses.map(row => row.sourcedId),
    ]).toEqual([['p1'], ['s2'], ['c1']])
    expect(said(findings)).toEqual([
      'users.csv row 3, sourcedId: p1 stands in an earlier row too; this one was left out',
      'users.csv row 4, role: "captain" is not one of administrator, aide, guardian, parent, proctor, relative, student, teacher; the row was left out',
      'users.csv row 5, givenName: is empty; the row was left out',
      'academicSessions.csv row 2, startDate: "2026-02-30" is not a date (YYYY-MM-DD); the row was left out',
      'courses.csv row 3, orgSourcedId: o9 is not in orgs.csv; the row was left out',
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
      'users.csv row 2, orgSourcedIds: o9 is not in orgs.csv; the value was left out',
      'enrollments.csv row 4, status: "expired" is not one of active, tobedeleted; the row was left out',
      'enrollments.csv row 4, dateLastModified: "yesterday" is not an instant (YYYY-MM-DDThh:mm:ssZ); the value was left out',
      'enrollments.csv row 5: has 7 values for 6 columns; the last 1 were left out',
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
      'orgs.csv: is not UTF-8; it was read as windows-1252',
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
  it('refuses what is no such bundle, by name and with the reason', async () => {
    const refused = (files: Record<string, string>, pattern: RegExp | string) =>
      expect(readOneRoster(memoryArchive('bundle.zip', files))).rejects.toThrow(pattern)
    await refused({ 'a.csv': '' }, /holds no manifest.csv/)
    await refused(
      { 'manifest.csv': 'propertyName,value\r\noneroster.version,1.2\r\n' },
      /is OneRoster 1.2; version 1.1 is read here/,
    )
    await refused(
      { 'manifest.csv': manifest('orgs'), 'orgs.csv': 'sourcedId,name\r\no1,A\r\n' },
      'orgs.csv: has no column type',
    )
    await refused(
      { 'manifest.csv': manifest('orgs'), 'orgs.csv': 'sourcedId,name,type,name\r\no1,A\r\n' },
      'orgs.csv: has the column name twice',
    )
    await refused({ 'manifest.csv': manifest('orgs'), 'orgs.csv': '' }, 'orgs.csv: is empty')
    await refused(
      { 'manifest.csv': manifest('orgs'), 'orgs.csv': 'sourcedId,name,type\r\no1,"A,school\r\n' },
      /row 2: a quotation mark is not closed/,
    )
    await refused(
      { 'manifest.csv': manifest('orgs'), 'orgs.csv': 'sourcedId,name,type\r\no1,A\0,school\r\n' },
      /zero bytes/,
    )
    expect(
      (await readOneRoster(memoryArchive('bundle.zip', { 'manifest.csv': manifest('orgs') }))).findings[0]!
        .message,
    ).toMatch(/it is not in the bundle/)
  })
})
