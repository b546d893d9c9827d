import type { PDFDocumentProxy } from 'pdfjs-dist/types/src/display/api'
import type { Archive } from '../../core/formats/archive/archive'
import { readLimits, type ReadLimits } from '../../core/formats/limits'
import { elementsBelow, readXml } from '../../core/formats/xml'
import { bufferSource, openZip } from '../exchange/files/zip'
import { ownText, searchedAtMost, tidy, type TextOf } from './plain-text'

const MiB = 1024 * 1024
const limits: ReadLimits = { ...readLimits, entries: 2000, unpackedBytes: 64 * MiB, xmlBytes: 16 * MiB }
/** Of each kind of office document (ISO/IEC 29500, ISO/IEC 26300): the parts that hold text, and the elements in which it stands; none: any. */
const officeParts: Readonly<Record<string, { parts: RegExp; elements?: readonly string[] }>> = {
  docx: { parts: /^word\/(document|footnotes|endnotes|header\d*|footer\d*)\.xml$/, elements: ['t'] },
  xlsx: { parts: /^xl\/sharedStrings\.xml$/, elements: ['t'] },
  pptx: { parts: /^ppt\/(slides\/slide|notesSlides\/notesSlide)\d+\.xml$/, elements: ['t'] },
  odt: { parts: /^content\.xml$/ },
  ods: { parts: /^content\.xml$/ },
  odp: { parts: /^content\.xml$/ },
}
async function textOfParts(
  archive: Archive,
  { parts, elements }: (typeof officeParts)[string],
): Promise<string> {
  const texts: string[] = []
  for (const path of archive.entries.keys()) {
    if (!parts.test(path)) continue
    const root = readXml(path, await archive.bytes(path), limits)
    for (const { name, text } of elementsBelow(root))
      if (text && (!elements || elements.includes(name))) texts.push(text)
  }
  return tidy(texts.join(' '))
}

/** A PDF is read page by page, and no further than this. */
const pdfAtMost = { pages: 300, bytes: 32 * MiB, milliseconds: 20_000 }
/** What the library wants to find where it draws. Nothing is drawn here, so that names are enough, and no native package is needed. */
class Drawing {}
/**
 * Does something, and leaves the language as it was: the library puts versions of its own in the place of what every engine
 * has, and with them all JSON of the whole process takes many times as long.
 */
async function withOwnLanguage<T>(work: () => Promise<T>): Promise<T> {
  const { parse, stringify } = JSON
  const { push } = Array.prototype
  try {
    return await work()
  } finally {
    Object.assign(JSON, { parse, stringify })
    Object.defineProperty(Array.prototype, 'push', { value: push })
  }
}
/** Read only where it is wanted: it is large. Its own worker is given to it, since there is no address to fetch it from. */
async function pdfLibrary() {
  const drawing = { DOMMatrix: Drawing, ImageData: Drawing, Path2D: Drawing }
  const { warn } = console
  // It warns of the native package that is not there.
  console.warn = () => {}
  try {
    const worker: unknown = await import('pdfjs-dist/legacy/build/pdf.worker.mjs')
    Object.assign(globalThis, drawing, { pdfjsWorker: worker })
    return await import('pdfjs-dist/legacy/build/pdf.mjs')
  } finally {
    console.warn = warn
  }
}
/** One look at the language holds for the life of the process: what is loaded once is not loaded again. */
let library: ReturnType<typeof pdfLibrary> | null = null
async function textOfPdf(bytes: Uint8Array): Promise<string | null> {
  if (bytes.length > pdfAtMost.bytes) return null
  const { getDocument, VerbosityLevel } = await (library ??= withOwnLanguage(pdfLibrary))
  const task = getDocument({
    data: new Uint8Array(bytes),
    verbosity: VerbosityLevel.ERRORS,
    isEvalSupported: false,
    useSystemFonts: false,
    disableFontFace: true,
    stopAtErrors: false,
  })
  const until = Date.now() + pdfAtMost.milliseconds
  try {
    return await textOfPages(await task.promise, until)
  } finally {
    await task.destroy()
  }
}
async function textOfPages(document: PDFDocumentProxy, until: number): Promise<string> {
  const texts: string[] = []
  let length = 0
  for (let at = 1; at <= Math.min(document.numPages, pdfAtMost.pages); at++) {
    if (length > searchedAtMost || Date.now() > until) break
    const { items } = await (await document.getPage(at)).getTextContent()
    for (const item of items) {
      if (!('str' in item)) continue
      texts.push(item.str, item.hasEOL ? ' ' : '')
      length += item.str.length
    }
    texts.push(' ')
  }
  return tidy(texts.join(''))
}

const endingOf = (name: string): string => name.slice(name.lastIndexOf('.') + 1).toLowerCase()
/** The text of any body, files that were attached among them. What cannot be read has none: it is found by its title alone. */
export const anyText: TextOf = async (bytes, mediaType, name) => {
  try {
    const office = officeParts[endingOf(name)] ?? officeParts[officeTypes[mediaType] ?? '']
    if (office) return await textOfParts(await openZip(name, bufferSource(bytes), limits), office)
    if (mediaType === 'application/pdf') return await textOfPdf(bytes)
    return await ownText(bytes, mediaType, name)
  } catch {
    // Damaged, encrypted or made to do harm: whatever the reader says of it, nothing of it is searched.
    return null
  }
}
const officeTypes: Readonly<Record<string, string>> = {
  'application/vnd.openxmlformats-officedocument.wordprocessingml.document': 'docx',
  'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet': 'xlsx',
  'application/vnd.openxmlformats-officedocument.presentationml.presentation': 'pptx',
  'application/vnd.oasis.opendocument.text': 'odt',
  'application/vnd.oasis.opendocument.spreadsheet': 'ods',
  'application/vnd.oasis.opendocument.presentation': 'odp',
}
