import { strToU8, zipSync } from 'fflate'
import { describe, expect, it } from 'vitest'
import { readOneRoster } from './read'

// Made by hand after the CSV binding of 1EdTech OneRoster 1.1 (column names from memory).
const manifest = (...tables: string[]): string => ['propertyName,value', 'manifest.version,1.0', 'oneroster.version,1.1', ...tables.map(table => `file.${table},bulk`)].join('\r\n')
const pack = (files: Record<string, string>): Uint8Array => zipSync(Object.fromEntries(Object.entries(files).map(([path, text]) => [path, strToU8(text)])))
const orgs = 'sourcedId,status,dateLastModified,name,type,identifier,parentSourcedId\r\no1,active,,School,school,,\r\n'
const users = 'sourcedId,status,dateLastModified,enabledUser,orgSourcedIds,role,username,userIds,givenName,familyName\r\n'
const read = (files: Record<string, string>) => readOneRoster('bundle.zip', pack({ 'manifest.csv': manifest(...Object.keys(files).map(name => name.replace('.csv', ''))), ...files }))

describe('OneRoster 1.1 CSV', () => {
  it('reads any order of columns, a byte order mark, quoted line breaks, and leaves out rows to be deleted', () => {
    const { roster, findings } = read({ 'orgs.csv': '\uFEFFname,type,sourcedId,status\r\n"The ""Old""\r\nSchool",school,o1,active\r\nGone,school,o2,tobedeleted\r\n' })
    expect(roster.orgs).toEqual([{ sourcedId: 'o1', name: 'The "Old"\r\nSchool', type: 'school', identifier: '', parentSourcedId: '' }])
    expect(findings).toEqual([])
  })
  it('names row and column of what is wrong and reads the sound rows', () => {
    const { roster, findings } = read({
      'orgs.csv': orgs,
      'users.csv': `${users}p1,active,,true,o1,student,p1,,Ann,Ash\r\np1,active,,true,o1,student,p1,,Ann,Twice\r\np2,active,,true,o1,captain,p2,,Bo,Birch\r\np3,active,,true,o1,student,p3,,,Cedar\r\n`,
      'academicSessions.csv': 'sourcedId,status,dateLastModified,title,type,startDate,endDate\r\ns1,active,,Autumn,term,2026-02-30,2026-12-01\r\ns2,active,,Spring,term,2027-01-06,2027-04-09\r\n',
      'courses.csv': 'sourcedId,status,dateLastModified,schoolYearSourcedId,title,courseCode,grades,orgSourcedId\r\nc1,active,,,Sea,SEA 1,,o1\r\nc2,active,,,Air,AIR 1,,o9\r\n',
    })
    expect([roster.users.map(row => row.sourcedId), roster.academicSessions.map(row => row.sourcedId), roster.courses.map(row => row.sourcedId)]).toEqual([['p1'], ['s2'], ['c1']])
    expect(findings.map(finding => `${finding.where}: ${finding.message}`)).toEqual([
      'users.csv row 3, sourcedId: p1 stands in an earlier row too; this one was left out',
      'users.csv row 4, role: "captain" is not one of administrator, aide, guardian, parent, proctor, relative, student, teacher; the row was left out',
      'users.csv row 5, givenName: is empty; the row was left out',
      'academicSessions.csv row 2, startDate: "2026-02-30" is not a date (YYYY-MM-DD); the row was left out',
      'courses.csv row 3, orgSourcedId: o9 is not in orgs.csv; the row was left out',
    ])
  })
  it('refuses what is no such bundle, by name and with the reason', () => {
    const refused = (files: Record<string, string>) => () => readOneRoster('bundle.zip', pack(files))
    expect(() => readOneRoster('bundle.zip', strToU8('no'))).toThrow('bundle.zip: is not a zip archive')
    expect(refused({ 'a.csv': '' })).toThrow(/holds no manifest.csv/)
    expect(refused({ 'manifest.csv': 'propertyName,value\r\noneroster.version,1.2\r\n' })).toThrow(/is OneRoster 1.2; version 1.1 is read here/)
    expect(refused({ 'manifest.csv': manifest('orgs'), 'orgs.csv': 'sourcedId,name\r\no1,A\r\n' })).toThrow('orgs.csv: has no column type')
    expect(refused({ 'manifest.csv': manifest('orgs'), 'orgs.csv': 'sourcedId,name,type\r\no1,"A,school\r\n' })).toThrow(/quotation mark is not closed/)
    expect(readOneRoster('bundle.zip', pack({ 'manifest.csv': manifest('orgs') })).findings[0]!.message).toMatch(/it is not in the bundle/)
  })
})
