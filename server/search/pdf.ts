import type { PDFDocumentProxy, PDFPageProxy } from 'pdfjs-dist/types/src/display/api'
import type { PdfTexts } from '../../core/student-data/traces/readers/reader'

const MiB = 1024 * 1024
/** A PDF is read page by page, and no further than this. */
const atMost = { pages: 300, letters: 4_000_000, bytes: 32 * MiB, milliseconds: 20_000 }
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
/** Opens a PDF, and closes it once it is read. `until`: when whoever reads it is to stop. @throws where it is damaged, locked or too large */
async function withPdf<T>(
  bytes: Uint8Array,
  read: (document: PDFDocumentProxy, until: number) => Promise<T>,
): Promise<T> {
  if (bytes.length > atMost.bytes) throw new Error('a PDF of more bytes than are read')
  const { getDocument, VerbosityLevel } = await (library ??= withOwnLanguage(pdfLibrary))
  const task = getDocument({
    data: new Uint8Array(bytes),
    verbosity: VerbosityLevel.ERRORS,
    isEvalSupported: false,
    useSystemFonts: false,
    disableFontFace: true,
    stopAtErrors: false,
  })
  const until = Date.now() + atMost.milliseconds
  try {
    return await read(await task.promise, until)
  } finally {
    await task.destroy()
  }
}
async function textOfPage(page: PDFPageProxy): Promise<string> {
  const { items } = await page.getTextContent()
  return items.flatMap(item => ('str' in item ? [item.str, item.hasEOL ? ' ' : ''] : [])).join('')
}
/** The text of a PDF, up to so many letters. */
export const textOfPdf = (bytes: Uint8Array, letters: number): Promise<string> =>
  withPdf(bytes, async (document, until) => {
    const texts: string[] = []
    let length = 0
    for (let at = 1; at <= Math.min(document.numPages, atMost.pages); at++) {
      if (length > letters || Date.now() > until) break
      const text = await textOfPage(await document.getPage(at))
      texts.push(text, ' ')
      length += text.length
    }
    return texts.join('')
  })

/** All text in some values, whatever they are made of. */
const textsIn = (value: unknown): string[] => {
  if (typeof value === 'string') return [value]
  if (typeof value !== 'object' || value === null || ArrayBuffer.isView(value)) return []
  return Object.values(value).flatMap(textsIn)
}
/** Of a note on a page: who wrote it, what it says, what a field is filled with, and where a link leads. */
const saidIn = ({
  titleObj,
  contentsObj,
  fieldName,
  fieldValue,
  alternativeText,
  url,
  unsafeUrl,
}: Note): string[] =>
  [titleObj?.str, contentsObj?.str, fieldName, fieldValue, alternativeText, url, unsafeUrl].flatMap(textsIn)
interface Note {
  readonly titleObj?: { readonly str: string }
  readonly contentsObj?: { readonly str: string }
  readonly fieldName?: unknown
  readonly fieldValue?: unknown
  readonly alternativeText?: unknown
  readonly url?: unknown
  readonly unsafeUrl?: unknown
}
/** Everything that a PDF says: its pages with the notes on them, what it says of itself, and the files attached to it. */
export const readPdf = (bytes: Uint8Array): Promise<PdfTexts> =>
  withPdf(bytes, async (document, until) => {
    const pages: string[] = []
    const notes: string[] = []
    let length = 0
    let partly: string | null = null
    for (let at = 1; at <= document.numPages; at++) {
      if (at > atMost.pages || length > atMost.letters || Date.now() > until) {
        partly = `Only its first ${at - 1} pages of ${document.numPages} were read.`
        break
      }
      const page = await document.getPage(at)
      const text = await textOfPage(page)
      pages.push(text)
      length += text.length
      notes.push(...((await page.getAnnotations()) as Note[]).flatMap(saidIn))
    }
    const { info, metadata } = await document.getMetadata()
    const xmp = metadata?.getRaw() as unknown
    const outline = textsIn(((await document.getOutline()) ?? []).map(({ title, items }) => [title, items]))
    const attached: Record<string, { filename?: string; content?: Uint8Array }> =
      ((await document.getAttachments()) as never) ?? {}
    return {
      pages,
      about: [
        ...textsIn(info),
        ...(typeof xmp === 'string' ? [xmp.replace(/<[^>]*>/g, '\n')] : []),
        ...outline,
        ...notes,
      ],
      files: Object.values(attached).map(({ filename, content }) => ({
        name: filename ?? '',
        bytes: content ?? new Uint8Array(),
      })),
      partly,
    }
  })
