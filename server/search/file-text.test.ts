import { zipSync } from 'fflate'
import { describe, expect, it } from 'vitest'
import { anyText } from './file-text'
import { searchedAtMost, textOfHtml } from './plain-text'

const bytes = (text: string): Uint8Array => new TextEncoder().encode(text)
/** A PDF of one page (ISO 32000-1, the least it may be), with a text on it. */
function pdf(text: string): Uint8Array {
  const content = `BT /F1 12 Tf 72 720 Td (${text}) Tj ET`
  const objects = [
    '<< /Type /Catalog /Pages 2 0 R >>',
    '<< /Type /Pages /Kids [3 0 R] /Count 1 >>',
    '<< /Type /Page /Parent 2 0 R /MediaBox [0 0 612 792] /Contents 4 0 R /Resources << /Font << /F1 5 0 R >> >> >>',
    `<< /Length ${content.length} >>\nstream\n${content}\nendstream`,
    '<< /Type /Font /Subtype /Type1 /BaseFont /Helvetica >>',
  ]
  let file = '%PDF-1.4\n'
  const offsets = objects.map((object, at) => {
    const offset = file.length
    file += `${at + 1} 0 obj\n${object}\nendobj\n`
    return offset
  })
  const start = file.length
  file += `xref\n0 6\n0000000000 65535 f \n${offsets.map(at => `${String(at).padStart(10, '0')} 00000 n \n`).join('')}`
  return bytes(`${file}trailer << /Size 6 /Root 1 0 R >>\nstartxref\n${start}\n%%EOF\n`)
}
const office = (parts: Record<string, string>): Uint8Array =>
  zipSync(Object.fromEntries(Object.entries(parts).map(([path, text]) => [path, bytes(text)])))

describe('the text of an attached file', () => {
  it('is read from PDF, from text documents, workbooks and slides, and from plain text', async () => {
    expect(await anyText(pdf('A gauge beside the harbour wall'), 'application/pdf', 'gauge.pdf')).toBe(
      'A gauge beside the harbour wall',
    )
    const document =
      '<w:document xmlns:w="urn:w"><w:t>Ebb</w:t><w:instrText>HIDDEN</w:instrText><w:t>and flood</w:t></w:document>'
    expect(await anyText(office({ 'word/document.xml': document }), '', 'tides.docx')).toBe('Ebb and flood')
    const strings = '<sst xmlns="urn:s"><si><t>spelt</t></si><si><t>rye</t></si></sst>'
    expect(await anyText(office({ 'xl/sharedStrings.xml': strings }), '', 'flour.xlsx')).toBe('spelt rye')
    const slide = '<p:sld xmlns:p="urn:p" xmlns:a="urn:a"><a:t>One loaf</a:t></p:sld>'
    expect(await anyText(office({ 'ppt/slides/slide1.xml': slide }), '', 'loaf.pptx')).toBe('One loaf')
    expect(await anyText(bytes('flour,water\nspelt,62\n'), 'text/csv', 'table.csv')).toBe(
      'flour,water spelt,62',
    )
  })
  it('is none where the file is damaged, is no text, or was made to do harm: it is found by its title alone', async () => {
    for (const [content, type, name] of [
      [bytes('%PDF-1.4 and then nothing'), 'application/pdf', 'broken.pdf'],
      [bytes('no zip at all'), '', 'broken.docx'],
      [office({ 'word/document.xml': '<!DOCTYPE x [<!ENTITY e "e">]><w>&e;</w>' }), '', 'entities.docx'],
      [new Uint8Array([0x89, 0x50, 0x4e, 0x47]), 'image/png', 'picture.png'],
    ] as const)
      expect(await anyText(content, type, name)).toBeNull()
  })
  it('of a page is what one reads: no scripts, styles or title of the window, with what its pictures say', () => {
    const html =
      '<html><head><title>T</title><style>p{}</style></head><body><p>Spring<b>tide</b></p><script>x()</script><img alt="a chart">'
    expect(textOfHtml(html)).toBe('Spring tide a chart')
    expect(textOfHtml(`<p>${'word '.repeat(searchedAtMost)}`).length).toBeLessThanOrEqual(searchedAtMost)
  })
})
