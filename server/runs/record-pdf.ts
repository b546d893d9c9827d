import { codeText } from '../../core/course/code-text'
import PDFDocument from 'pdfkit'
import { itemKindDefinitions } from '../../core/course/kinds'
import { dateFields } from '../../core/course/dates'
import { counted, momentText } from '../../core/dates/words'
import { effectText, gradesText, leftText } from '../../core/plan/effect-text'
import { shellFactText, shellFactWords } from '../../core/plan/shell-facts'
import { studentDataWords } from '../../core/student-data/student-data'
import type { RunRecord } from '../../shared/api/run-record'
import { wallClock } from '../clock'

/** The letters of one weight, as fonts that each hold some scripts (WOFF): a letter is set in the first that has it. */
export interface PdfFonts {
  readonly regular: readonly Uint8Array[]
  readonly bold: readonly Uint8Array[]
}
type Weight = keyof PdfFonts
const margin = 54
const ink = '#14263A'
const soft = '#52616F'
const rule = '#D9D3C3'
const fieldWords = { opens: 'opens', due: 'due', closes: 'closes' } as const
const sideText = (course: RunRecord['into']): string => `${codeText(course)}, ${course.term}`

/** Fontkit's fonts know which letters they have; the types of pdfkit do not say so. */
interface Face {
  readonly name: string
  readonly has: (code: number) => boolean
}
function facesOf(doc: PDFKit.PDFDocument, fonts: PdfFonts): Record<Weight, Face[]> {
  const faces = (weight: Weight): Face[] =>
    fonts[weight].map((bytes, at) => {
      const name = `${weight}-${at}`
      doc.registerFont(name, Buffer.from(bytes))
      doc.font(name)
      const { font } = (
        doc as unknown as { _font: { font: { hasGlyphForCodePoint: (code: number) => boolean } } }
      )._font
      return { name, has: code => font.hasGlyphForCodePoint(code) }
    })
  return { regular: faces('regular'), bold: faces('bold') }
}
/** A text in pieces, each of letters that one face has; a letter that none has is told as a question mark. */
function piecesOf(text: string, faces: readonly Face[]): { face: Face; text: string }[] {
  const pieces: { face: Face; text: string }[] = []
  for (const letter of text) {
    const code = letter.codePointAt(0) ?? 63
    const last = pieces.at(-1)
    const face = last?.face.has(code) ? last.face : faces.find(each => each.has(code))
    const [first] = faces
    if (!face && !first) continue
    const piece = face ? { face, text: letter } : { face: first as Face, text: '?' }
    if (last && last.face === piece.face) last.text += piece.text
    else pieces.push(piece)
  }
  return pieces
}

/** The record of a run as a PDF of A4 pages, to read, print and keep; instants by the clock of `zone`. Lets others go on meanwhile. */
export async function recordPdf(record: RunRecord, fonts: PdfFonts, zone: string): Promise<Buffer> {
  const instantLine = (instant: string): string => {
    const wall = wallClock(new Date(instant), zone)
    return `${momentText(wall)}, ${wall.slice(0, 4)}`
  }
  const title = `Record of a run: ${sideText(record.source)} into ${sideText(record.into)}`
  const doc = new PDFDocument({
    size: 'A4',
    margin,
    bufferPages: true,
    lang: 'en',
    info: { Title: title, Author: record.by, Creator: 'Northtide' },
  })
  const chunks: Buffer[] = []
  doc.on('data', (chunk: Buffer) => chunks.push(chunk))
  const ended = new Promise<void>(resolve => doc.on('end', () => resolve()))
  const faces = facesOf(doc, fonts)
  const width = doc.page.width - 2 * margin
  function write(
    text: string,
    size: number,
    { weight = 'regular', colour = ink, indent = 0 }: Style = {},
  ): void {
    doc.fontSize(size).fillColor(colour)
    const pieces = piecesOf(text, faces[weight])
    pieces.forEach((piece, at) => {
      const more = { continued: at < pieces.length - 1, width: width - indent }
      doc.font(piece.face.name)
      if (at === 0) doc.text(piece.text, margin + indent, undefined, more)
      else doc.text(piece.text, more)
    })
  }
  const heading = (text: string): void => {
    if (doc.y > doc.page.height - 140) doc.addPage()
    doc.moveDown(0.8)
    write(text, 13, { weight: 'bold' })
    doc
      .moveTo(margin, doc.y + 1)
      .lineTo(margin + width, doc.y + 1)
      .strokeColor(rule)
      .stroke()
    doc.moveDown(0.4)
  }

  write(title, 18, { weight: 'bold' })
  write(`Run ${instantLine(record.finishedAt)} by ${record.by}.`, 10, { colour: soft })
  if (record.undoneAt) write(`This run was undone ${instantLine(record.undoneAt)}.`, 10, { weight: 'bold' })
  heading('In numbers')
  for (const line of numbersOf(record)) write(line, 10)
  if (record.shell.length > 0) {
    heading('The shell itself')
    for (const { field, before, after } of record.shell)
      write(
        `${shellFactWords[field] ?? field}: ${shellFactText(after)} (before: ${shellFactText(before)})`,
        10,
      )
  }
  heading('Audit: student data in the shell')
  for (const line of auditLines(record)) write(line, 10)
  heading(record.inPlace ? 'What was dated anew' : 'What was written')
  for (const [at, entry] of record.entries.entries()) {
    if (at % 100 === 99) await new Promise(resolve => setImmediate(resolve))
    const isUnit = entry.entity === 'unit'
    const indent = 12 * entry.depth
    const kind = entry.kind ? itemKindDefinitions[entry.kind].words[0] : entry.entity
    const done = entry.action === 'added' ? '' : ` (${entry.action})`
    write(`${entry.title}${done}`, isUnit ? 11 : 10, { weight: isUnit ? 'bold' : 'regular', indent })
    const facts = [
      kind,
      ...dateFields.flatMap(field => {
        const moment = entry[field]
        return moment ? [`${fieldWords[field]} ${momentText(moment)}`] : []
      }),
      entry.category,
      entry.rubric && `rubric ${entry.rubric}`,
      entry.gradingPeriod,
      entry.was !== null && entry.was !== entry.title && `was “${entry.was}”`,
      ...entry.flags.map(flag => flag.replaceAll('-', ' ')),
    ].filter(Boolean)
    if (!isUnit || entry.opens) write(facts.join(' · '), 8, { colour: soft, indent: indent + 8 })
  }
  if (record.left.length > 0) {
    heading('What stayed behind')
    for (const { title: left, why } of record.left) write(`${left} (${why.replaceAll('-', ' ')})`, 10)
  }
  numberPages(doc, faces, title)
  doc.end()
  await ended
  return Buffer.concat(chunks)
}
interface Style {
  weight?: Weight
  colour?: string
  indent?: number
}
function numbersOf({ effect, inPlace }: RunRecord): string[] {
  const { dates } = effect
  const told = effectText(effect, { inPlace, tense: 'did' })
  if (inPlace) return [told]
  return [
    told,
    `Grade rules: ${gradesText(effect.grades)}.`,
    `${counted(dates.dates, 'date')} written: ${dates.straight} straight across, ${dates.moved} moved, ${dates.held} held, ${dates.settle} to settle.`,
    `Left behind: ${leftText(effect, 'did')}.`,
  ]
}
function auditLines({ audit, searched }: RunRecord): string[] {
  const found = audit.filter(({ before, after, cleared }) => before + after + cleared > 0)
  const counts = found.map(
    ({ kind, before, cleared, after, onNewItems }) =>
      `${studentDataWords(kind)[1]}: ${before} before, ${cleared} cleared, ${after} after, ${onNewItems} on new items`,
  )
  const rest = audit.length - found.length
  return [
    ...counts,
    ...(rest > 0
      ? [
          `Of ${found.length > 0 ? 'the other ' : 'all '}${counted(rest, 'kind')} there was nothing, before and after.`,
        ]
      : []),
    ...(searched
      ? [
          `Texts searched for ${counted(searched.looked.students, 'student')}: ${searched.out} taken out, ${searched.kept.length} kept with a reason.`,
          ...searched.kept.map(({ title, because, by }) => `Kept in “${title}”: ${because} (${by})`),
          ...searched.unseen.map(
            ({ title, why, by }) => `Came without a look into it: “${title}”. ${why} (${by})`,
          ),
        ]
      : []),
  ]
}
function numberPages(doc: PDFKit.PDFDocument, { regular }: Record<Weight, Face[]>, title: string): void {
  const { start, count } = doc.bufferedPageRange()
  for (let at = start; at < start + count; at++) {
    doc.switchToPage(at)
    const text = `${title.slice(0, 100)} · page ${at - start + 1} of ${count}`
    // Below the margin a text would begin another page.
    doc.page.margins.bottom = 0
    let x = margin
    for (const { face, text: piece } of piecesOf(text, regular)) {
      doc.font(face.name).fontSize(8).fillColor(soft)
      doc.text(piece, x, doc.page.height - 36, { lineBreak: false })
      x += doc.widthOfString(piece)
    }
  }
}
