import exceljs from 'exceljs'
import { describe, expect, it } from 'vitest'
import { zipOfFiles } from '../../../tests/support/archives'
import { readFile } from './read'
import { writeWorkbook } from './xlsx'
import { bufferSource, openZip } from './zip'
import { readLimits } from '../../../core/formats/limits'

const read = (bytes: Buffer) => readFile('days.xlsx', bufferSource(bytes))
async function bookOf(fill: (sheet: exceljs.Worksheet, book: exceljs.Workbook) => void): Promise<Buffer> {
  const book = new exceljs.Workbook()
  fill(book.addWorksheet('Days'), book)
  return Buffer.from(await book.xlsx.writeBuffer())
}

describe('workbooks', () => {
  it('dates as dates, as text and as what a formula came to; other sheets are said', async () => {
    const report = await read(
      await bookOf((sheet, book) => {
        sheet.addRow(['Name', 'Start', 'End'])
        sheet.addRow([
          'Break',
          new Date('2027-02-15T00:00:00Z'),
          { formula: 'B2+4', result: new Date('2027-02-19T00:00:00Z') },
        ])
        sheet.addRow([{ richText: [{ text: 'Good ' }, { text: 'day' }] }, '26 March 2027'])
        sheet.addRow(['Nothing', { error: '#N/A' }])
        book.addWorksheet('Other').addRow(['x'])
      }),
    )
    expect(report.events).toEqual([
      { title: 'Break', firstDay: '2027-02-15', lastDay: '2027-02-19' },
      { title: 'Good day', firstDay: '2027-03-26', lastDay: '2027-03-26' },
    ])
    expect(report.findings.map(finding => finding.message)).toEqual(
      expect.arrayContaining([expect.stringContaining('1 other sheet was not')]),
    )
    expect(report.findings.map(finding => finding.where)).toContain('days.xlsx row 4, Start')
  })
  it('text that looks like a formula goes out as text, and nothing in the file is one', async () => {
    const bytes = await writeWorkbook(
      'Dates',
      ['Item', '=Header'],
      [
        ['=1+1', '+cmd'],
        ['@SUM(A1)', '-2'],
        ['=HYPERLINK("https://outside.example")', 'plain'],
      ],
    )
    const archive = await openZip('dates.xlsx', bufferSource(bytes), readLimits)
    const sheet = Buffer.from(await archive.bytes('xl/worksheets/sheet1.xml')).toString()
    expect(sheet).not.toMatch(/<f[ >]|t="str"/)
    const cells = sheet.match(/<c [^>]*>/g)!
    expect(cells.length).toBe(8)
    for (const cell of cells) expect(cell).toMatch(/t="(s|inlineStr)"/)
    const back = new exceljs.Workbook()
    await back.xlsx.load(bytes as unknown as ArrayBuffer)
    back.worksheets[0]!.eachRow(row => row.eachCell(cell => expect(cell.type).toBe(exceljs.ValueType.String)))
    expect(back.worksheets[0]!.getCell('A2').value).toBe('=1+1')
  })
  it('document types, bombs, cells far off and sheets of a million rows are refused', async () => {
    const good = await bookOf(sheet => sheet.addRow(['A', '2027-02-15']))
    const archive = await openZip('days.xlsx', bufferSource(good), readLimits)
    const files = Object.fromEntries(
      await Promise.all(
        [...archive.entries.keys()].map(
          async path => [path, Buffer.from(await archive.bytes(path))] as const,
        ),
      ),
    )
    const sheet = files['xl/worksheets/sheet1.xml']!.toString()
    const with_ = (path: string, text: string) => read(zipOfFiles({ ...files, [path]: text }))
    const said = async (report: ReturnType<typeof read>) => (await report).findings.at(-1)!.message
    expect(
      await said(with_('xl/worksheets/sheet1.xml', sheet.replace('?>', '?><!DOCTYPE x [<!ENTITY a "b">]>'))),
    ).toContain('document type')
    expect(
      await said(with_('xl/worksheets/sheet1.xml', sheet.replace('r="A1"', 'r="ZZZ1048576"'))),
    ).toContain('no table of dates')
    expect(await said(with_('xl/worksheets/sheet1.xml', 'not xml at all <<<'))).toContain('cannot be read')
    expect(await said(read(zipOfFiles({ ...files, 'xl/media/x.bin': Buffer.alloc(40 << 20) })))).toMatch(
      /unpacks to/,
    )
    const long = await bookOf(page => {
      for (let n = 0; n < 6000; n++) page.addRow(['A', '2027-02-15'])
    })
    expect(await said(read(long))).toContain('more than 5000 rows')
  })
})
