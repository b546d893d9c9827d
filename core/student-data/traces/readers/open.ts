import { readerOf } from '.'
import { segment } from '../markup'
import type { BodyPart, BodyReader, FileFacts, OpenBody, ReadPdf, Reading, Within } from './reader'

/** A body as its reader opened it; or why nothing could be looked into. */
export type Opened = { readonly reader: BodyReader; readonly open: OpenBody } | { readonly why: string }
const deepest = 4
/** Unpacked, so much of a file is read: a small one may hold a very large one. */
const unpackedAtMost = 64 * 1024 * 1024
const nothing: BodyReader = {
  words: ['empty file', 'empty files'],
  isTable: false,
  open: () => ({ parts: [], write: null, unseen: [] }),
}

/** Opens a body by whatever reads it: chosen by its first bytes, its file name and its type. */
export const openBody = (file: FileFacts, readPdf: ReadPdf | null): Promise<Opened> =>
  openAt(file, 0, { readPdf, left: { bytes: unpackedAtMost } })
type Common = Pick<Reading, 'readPdf' | 'left'>
async function openAt(file: FileFacts, depth: number, common: Common): Promise<Opened> {
  if (file.bytes.length === 0) return { reader: nothing, open: { parts: [], write: null, unseen: [] } }
  if (depth > deepest) return { why: 'It lies too deep within other files.' }
  const reader = readerOf(file)
  if (typeof reader === 'string') return { why: reader }
  const within: Reading['within'] = (inner, path) => openWithin(inner, path, depth + 1, common)
  try {
    return { reader, open: await reader.open(file, { ...common, within }) }
  } catch {
    return { why: 'It could not be read: it is damaged, locked, or too large unpacked.' }
  }
}
/** A file within another, under `path`: what it is called, and its texts. */
async function openWithin(
  file: Omit<FileFacts, 'mediaType'>,
  path: string,
  depth: number,
  common: Common,
): Promise<Within> {
  const { name, bytes } = file
  // What it is called is looked through as it stands there, folders included.
  const called: BodyPart = {
    name: `name:${path}`,
    file: name,
    raw: path,
    segments: [segment('fileName', path)],
    canWrite: false,
  }
  const opened = await openAt({ ...file, mediaType: '' }, depth, common)
  if ('why' in opened)
    return { parts: [called], unseen: [{ name, why: opened.why, size: bytes.length }], write: null }
  const { open } = opened
  const inside = (own: string | null): string => (own === null || own === '' ? name : `${name} › ${own}`)
  return {
    parts: [
      called,
      ...open.parts.map(part => ({
        ...part,
        name: `${path}/${part.name}`,
        file: inside(part.file),
        canWrite: part.canWrite && open.write !== null,
      })),
    ],
    unseen: open.unseen.map(each => ({ ...each, name: inside(each.name) })),
    write: open.write,
  }
}
