import { readFileSync } from 'node:fs'
import exceljs from 'exceljs'
import { describe, expect, it } from 'vitest'
import type { ImportWish } from '../../shared/api/uploads'
import { loadTermCalendar } from '../../server/calendars/terms.queries'
import { readCourse } from '../../server/courses/lines'
import { broughtNow, sendNow } from '../../server/exchange/now'
import { askForImport } from '../../server/exchange/uploads'
import { itemXml, manifestOf, resourceXml, zipOfFiles } from '../support/archives'
import { useDemo } from '../support/demo'
import { closureCalendar, closureTable } from '../support/samples'

// Every form in every row that README's table of formats marks "in", brought in as people do on the page Files.
const demo = useDemo('forms')
const demoFile = (name: string): Buffer => readFileSync(new URL(`../../demo/files/${name}`, import.meta.url))
async function brings(name: string, bytes: Uint8Array, wish: ImportWish, who = demo.people.ellwood) {
  const id = await sendNow(demo.db, who, name, bytes)
  await askForImport(demo.db, who, id, wish)
  return broughtNow(demo.db, id)
}
const workbook = async (rows: readonly (readonly (string | Date)[])[]): Promise<Buffer> => {
  const book = new exceljs.Workbook()
  book.addWorksheet('Dates').addRows(rows.map(row => [...row]))
  return Buffer.from(await book.xlsx.writeBuffer())
}
const closures = async (term: string) =>
  (await loadTermCalendar(demo.db, term)).closures.map(({ name }) => name)

describe('every form that comes in', () => {
  it.each(['1.0.0', '1.1.0', '1.2.0', '1.3.0'])(
    'Common Cartridge %s becomes a course, with its package kept',
    async version => {
      const bytes = zipOfFiles({
        'imsmanifest.xml': manifestOf(
          itemXml('u', 'Unit', itemXml('a', 'Page', '', 'r')),
          resourceXml('r', 'webcontent', 'a.html'),
          version,
        ),
        'a.html': '<p>Text</p>',
      })
      const { courseId = '' } = await brings(
        `${version}.imscc`,
        bytes,
        { as: 'course', term: '2026-autumn', title: `Course ${version}` },
        demo.people.marchetti,
      )
      const { nodes, package: kept } = await readCourse(demo.db, demo.people.marchetti, courseId)
      expect(nodes.map(({ title }) => title)).toEqual(['Unit', 'Page'])
      expect(kept?.name).toBe(`${version}.imscc`)
    },
  )
  it('OneRoster: a roster, and with it the line items and results of courses that hold something', async () => {
    const { text } = await brings('port.zip', demoFile('port-ellery.oneroster.zip'), { as: 'roster' })
    expect(text).toBe(
      'Brought in: 119 people, 12 classes, 130 enrolments. Nothing was deleted. 1 course got 0 dates and numbers of 0 items, and 1,069 results',
    )
  })
  it('iCalendar, CSV and XLSX: closures of a term', async () => {
    const event = (title: string, day: string) => ({ title, firstDay: day, lastDay: day })
    const add = (name: string, bytes: Uint8Array, title: string, day: string) =>
      brings(name, bytes, { as: 'closures', term: '2027-summer', events: [event(title, day)] })
    await add('closures.ics', closureCalendar(), 'By calendar', '2027-07-05')
    await add('closures.csv', closureTable(), 'By table', '2027-07-06')
    await add(
      'closures.xlsx',
      await workbook([
        ['Name', 'First day'],
        ['By workbook', '2027-07-07'],
      ]),
      'By workbook',
      '2027-07-07',
    )
    expect(await closures('2027-summer')).toEqual(
      expect.arrayContaining(['By calendar', 'By table', 'By workbook']),
    )
  })
  it('a term calendar, and a course JSON into a class that holds nothing', async () => {
    const summer = demoFile('term-2027-summer.json')
    expect((await brings('summer.json', summer, { as: 'calendar' })).text).toBe(
      'The calendar of Summer 2027 is as the file says now',
    )
    const { text, courseId = '' } = await brings(
      'hyd.json',
      demoFile('hyd-240-01-autumn-2026.course.json').subarray(0),
      { as: 'course-json' },
    ).catch((error: unknown) => ({ text: String(error), courseId: '' }))
    // The class of that file holds content: it is compared with its package, never written over.
    expect([text, courseId]).toEqual([expect.stringContaining('holds content already'), ''])
    const json = JSON.parse(demoFile('hyd-240-01-spring-2027.course.json').toString()) as Record<
      string,
      unknown
    >
    const said = { ...json, items: [{ identifier: 'x', due: '2027-02-01T23:59' }] }
    const outcome = await brings('spring.json', Buffer.from(JSON.stringify(said)), { as: 'course-json' })
    expect(outcome.text).toMatch(
      /^Brought in: .*The class holds no items yet: what the file says of 1 item comes with its package$/,
    )
  })
  it('CSV and XLSX: items with their dates into a course that is there', async () => {
    const { old } = demo.courses
    const sheet = await workbook([
      ['Item', 'Due', 'Points'],
      ['Shore log 1', new Date('2026-09-18T17:00:00Z'), '12'],
    ])
    const wish = { as: 'said', into: old } as const
    expect((await brings('dates.xlsx', sheet, wish)).text).toBe(
      'HYD 240-01 Tidal Hydrography takes 2 dates and numbers of 1 item',
    )
    const csv = Buffer.from('Due;Item\n2026-09-26;Shore log 2\n')
    expect((await brings('dates.csv', csv, wish)).text).toBe(
      'HYD 240-01 Tidal Hydrography takes 1 date or number of 1 item',
    )
    const { nodes } = await readCourse(demo.db, demo.people.marchetti, old)
    const due = (title: string) => nodes.find(node => node.title === title)?.due
    expect([due('Shore log 1'), due('Shore log 2')]).toEqual(['2026-09-18T17:00', '2026-09-26T23:59'])
  })
})
