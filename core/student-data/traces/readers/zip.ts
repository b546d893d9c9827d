import { strFromU8, unzipSync, zipSync } from 'fflate'
import { markupSegments, type Breaks, type Segment } from '../markup'
import {
  utf8Bytes,
  type BodyPart,
  type BodyReader,
  type FileFacts,
  type OpenBody,
  type Reading,
  type Unseen,
} from './reader'

/** What ends a paragraph: of a text, a slide, a cell. Everything else stands within one. */
const paragraphs = new Set([
  'w:p',
  'w:br',
  'w:tab',
  'a:p',
  'a:br',
  'si',
  'c',
  'row',
  'text:p',
  'text:h',
  'text:tab',
  'text:line-break',
  'table:table-cell',
])
const fields: Breaks = name =>
  paragraphs.has(name) ||
  /^(dc|cp|dcterms|meta|app|vt):|^(manager|company|definedname|sheet|property)$/.test(name)
/** What office programs themselves write of fonts and colours: nothing in it is anybody's. */
const isTheirs = (path: string): boolean => /(^|\/)(theme\/|styles|fontTable|webSettings)/.test(path)
const isXml = (path: string): boolean => /\.(xml|rels|vml)$/i.test(path)
/** What a document says of itself, such as who wrote it, is not its text. */
const segmentsOf = (path: string, raw: string): Segment[] =>
  markupSegments(raw, fields).map(each =>
    /^(docProps\/|meta\.xml)/.test(path) && each.place === 'text'
      ? { ...each, place: 'metadata' as const, whole: null }
      : each,
  )

type Files = Readonly<Record<string, Uint8Array>>
function unpacked({ bytes }: FileFacts, { left }: Reading): Files {
  return unzipSync(bytes, {
    filter: ({ originalSize }) => {
      left.bytes -= originalSize
      if (left.bytes < 0) throw new Error('more, unpacked, than is read')
      return true
    },
  })
}
/** Packs files again, in their order; what must lie unpacked at the beginning of an OpenDocument (ISO/IEC 26300-3, 3.3) does. */
const packedAgain = (files: Files): Uint8Array =>
  zipSync(
    Object.fromEntries(
      Object.entries(files).map(([path, bytes]) => [
        path,
        path === 'mimetype' ? [bytes, { level: 0 }] : bytes,
      ]),
    ),
  )
/** What of an archive one entry is: so many of its parts, and how its bytes are made of their texts. */
interface Entry {
  readonly path: string
  readonly parts: number
  readonly write: ((raws: readonly string[]) => Uint8Array) | null
}
interface Collected {
  readonly parts: BodyPart[]
  readonly unseen: Unseen[]
  readonly entries: Entry[]
}
async function openEntry(
  path: string,
  bytes: Uint8Array,
  reading: Reading,
  { parts, unseen, entries }: Collected,
): Promise<void> {
  const name = path.slice(path.lastIndexOf('/') + 1)
  const inner = await reading.within({ name, bytes }, path)
  const [called, ...texts] = inner.parts
  if (!called) return
  parts.push({ ...called, canWrite: true }, ...texts)
  unseen.push(...inner.unseen)
  entries.push({ path, parts: 1 + texts.length, write: inner.write })
}
/** An archive put together from its entries, those that changed made anew. */
function archiveWith(files: Files, entries: readonly Entry[], parts: readonly BodyPart[]) {
  return (raws: readonly string[]): Uint8Array => {
    const changed: Record<string, Uint8Array> = {}
    let at = 0
    for (const { path, parts: count, write } of entries) {
      const own = raws.slice(at, at + count)
      const isSame = own.every((raw, n) => raw === parts[at + n]?.raw)
      if (!isSame && write) changed[path] = write(own)
      at += count
    }
    return packedAgain({ ...files, ...changed })
  }
}

/** An office document: its parts in XML are its text; pictures and files within it are looked into as what they are. */
async function openOffice(file: FileFacts, reading: Reading): Promise<OpenBody> {
  const files = unpacked(file, reading)
  const all: Collected = { parts: [], unseen: [], entries: [] }
  for (const [path, bytes] of Object.entries(files)) {
    if (isTheirs(path) || path.endsWith('/') || path === 'mimetype') continue
    if (isXml(path)) {
      const raw = strFromU8(bytes)
      all.parts.push({ name: path, file: null, raw, segments: segmentsOf(path, raw), canWrite: true })
      all.entries.push({ path, parts: 1, write: ([text]) => utf8Bytes(text ?? '') })
    } else if (/(^|\/)(embeddings|media|Pictures|Object[^/]*)\//.test(path))
      await openEmbedded(path, bytes, reading, all)
  }
  return { parts: all.parts, unseen: all.unseen, write: archiveWith(files, all.entries, all.parts) }
}
/** A picture or a file within a document: drawings of office programs' own say nothing, and are left alone. */
async function openEmbedded(
  path: string,
  bytes: Uint8Array,
  reading: Reading,
  all: Collected,
): Promise<void> {
  if (/\.(emf|wmf|bin|fntdata|tmp)$/i.test(path)) return
  const { parts, unseen, write } = await reading.within({ name: path, bytes }, path)
  const texts = parts.slice(1)
  all.parts.push(...texts)
  all.unseen.push(...unseen)
  all.entries.push({ path, parts: texts.length, write })
}
export const documents: BodyReader = { words: ['document', 'documents'], isTable: false, open: openOffice }
export const workbooks: BodyReader = { words: ['workbook', 'workbooks'], isTable: true, open: openOffice }

/** Any other archive: each file in it as what it is, and what it is called. */
export const archives: BodyReader = {
  words: ['archive', 'archives'],
  isTable: false,
  async open(file, reading) {
    const files = unpacked(file, reading)
    const all: Collected = { parts: [], unseen: [], entries: [] }
    for (const [path, bytes] of Object.entries(files))
      if (!path.endsWith('/')) await openEntry(path, bytes, reading, all)
    return { parts: all.parts, unseen: all.unseen, write: archiveNamed(files, all) }
  },
}
/** The same, and a file whose name changed under its new one, which no other has. */
function archiveNamed(files: Files, { parts, entries }: Collected) {
  return (raws: readonly string[]): Uint8Array => {
    const named: Record<string, Uint8Array> = {}
    const of = new Map(entries.map(entry => [entry.path, entry]))
    let at = 0
    for (const [path, bytes] of Object.entries(files)) {
      const entry = of.get(path)
      const own = entry ? raws.slice(at, at + entry.parts) : []
      const isSame = own.slice(1).every((raw, n) => raw === parts[at + 1 + n]?.raw)
      named[freeName(own[0] ?? path, named)] = isSame || !entry?.write ? bytes : entry.write(own.slice(1))
      at += own.length
    }
    return packedAgain(named)
  }
}
function freeName(path: string, taken: Readonly<Record<string, unknown>>): string {
  if (!Object.hasOwn(taken, path)) return path
  const dot = path.lastIndexOf('.')
  const [stem, ending] = dot > path.lastIndexOf('/') ? [path.slice(0, dot), path.slice(dot)] : [path, '']
  let n = 2
  while (Object.hasOwn(taken, `${stem} ${n}${ending}`)) n++
  return `${stem} ${n}${ending}`
}
