import { FormatRefusal } from './refusal'

/** Text of a file in UTF-8, a byte order mark taken off; refuses bytes that are not UTF-8. */
export function utf8(where: string, bytes: Uint8Array): string {
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes)
  } catch {
    throw new FormatRefusal('not-utf8', where)
  }
}

const byteOrderMarks: readonly [encoding: string, bytes: readonly number[]][] = [
  ['utf-8', [0xef, 0xbb, 0xbf]],
  ['utf-16le', [0xff, 0xfe]],
  ['utf-16be', [0xfe, 0xff]],
]
const byteOrderMark = (bytes: Uint8Array): string | null =>
  byteOrderMarks.find(([, mark]) => mark.every((byte, place) => bytes[place] === byte))?.[0] ?? null

// 0x80 to 0x9F of windows-1252 (WHATWG Encoding, index windows-1252); 0: as it is. Node 20 reads these bytes as ISO 8859-1.
const windows = [
  0x20ac, 0, 0x201a, 0x0192, 0x201e, 0x2026, 0x2020, 0x2021, 0x02c6, 0x2030, 0x0160, 0x2039, 0x0152, 0,
  0x017d, 0, 0, 0x2018, 0x2019, 0x201c, 0x201d, 0x2022, 0x2013, 0x2014, 0x02dc, 0x2122, 0x0161, 0x203a,
  0x0153, 0, 0x017e, 0x0178,
]

/** Text by a named encoding, or null where the name is unknown or the bytes are not in it. */
function decoded(bytes: Uint8Array, encoding: string): string | null {
  try {
    const decoder = new TextDecoder(encoding, { fatal: true })
    const text = decoder.decode(bytes)
    return decoder.encoding === 'windows-1252'
      ? text.replace(/[\x80-\x9F]/g, letter =>
          String.fromCharCode(windows[letter.charCodeAt(0) - 0x80] || letter.charCodeAt(0)),
        )
      : text
  } catch {
    return null
  }
}
const latin = (bytes: Uint8Array): string => {
  let text = ''
  for (let at = 0; at < bytes.length; at++) text += String.fromCharCode(bytes[at]!)
  return text
}

/**
 * Text of an XML document: by its byte order mark, else by the encoding it declares, else UTF-8 (XML 1.0, appendix F).
 * @throws FormatRefusal where the bytes are not in that encoding.
 */
export function xmlText(where: string, bytes: Uint8Array): string {
  const mark = byteOrderMark(bytes)
  const declared = /^<\?xml[^>]*?encoding\s*=\s*["']([A-Za-z][A-Za-z0-9._-]*)["']/
    .exec(latin(bytes.subarray(0, 200)))?.[1]
    ?.toLowerCase()
  // Without a mark the declaration was readable byte by byte, so that it cannot be UTF-16.
  const encoding = mark ?? (declared?.startsWith('utf-16') ? 'utf-8' : declared) ?? 'utf-8'
  // What is valid UTF-8 beyond ASCII is UTF-8, whatever a document says of itself.
  const isUtf8 = mark === null && encodingContradiction(bytes)?.is === 'UTF-8'
  const text = decoded(bytes, isUtf8 ? 'utf-8' : encoding)
  if (text === null)
    throw encoding === 'utf-8'
      ? new FormatRefusal('not-utf8', where)
      : new FormatRefusal('not-its-encoding', where, { encoding })
  return text
}

/**
 * Text of a web page: by its byte order mark, else UTF-8, else by the encoding its `meta` names, else windows-1252 (WHATWG HTML,
 * "determining the character encoding"). `encoding`: null for UTF-8, else what it was.
 */
export function pageText(bytes: Uint8Array): { text: string; encoding: string | null } {
  const mark = byteOrderMark(bytes)
  const asUtf8 = mark === null || mark === 'utf-8' ? decoded(bytes, 'utf-8') : null
  if (asUtf8 !== null) return { text: asUtf8, encoding: null }
  const named =
    mark ??
    /<meta[^>]{0,200}?charset\s*=\s*["']?([A-Za-z][A-Za-z0-9._-]*)/i.exec(latin(bytes.subarray(0, 1024)))?.[1]
  for (const encoding of [named, 'windows-1252']) {
    const text = encoding === undefined ? null : decoded(bytes, encoding)
    if (text !== null) return { text, encoding: encoding! }
  }
  return { text: new TextDecoder('utf-8').decode(bytes), encoding: 'an encoding that could not be told' }
}

/** The encoding that a page or a document says it is in, in its own text; null where it says none. */
function statedEncoding(bytes: Uint8Array): string | null {
  const start = latin(bytes.subarray(0, 1024)).replaceAll('\0', '')
  const found =
    /^\W{0,3}<\?xml[^>]*?encoding\s*=\s*["']([A-Za-z][A-Za-z0-9._-]*)["']/.exec(start) ??
    /<meta[^>]{0,200}?charset\s*=\s*["']?([A-Za-z][A-Za-z0-9._-]*)/i.exec(start)
  return found?.[1]?.toLowerCase() ?? null
}
const isAscii = (bytes: Uint8Array): boolean => bytes.every(byte => byte < 0x80)
const utf8Names = /^utf-?8$/
/** Where a page or a document says one encoding and its bytes are in another: what it says, and what they are. */
export function encodingContradiction(bytes: Uint8Array): { says: string; is: string } | null {
  const says = statedEncoding(bytes)
  if (says === null) return null
  const mark = byteOrderMark(bytes)
  if (mark)
    return says.startsWith(mark.slice(0, 6)) || (mark === 'utf-8' && utf8Names.test(says))
      ? null
      : { says, is: mark.toUpperCase() }
  if (isAscii(bytes)) return null
  const isUtf8 = decoded(bytes, 'utf-8') !== null
  if (utf8Names.test(says)) return isUtf8 ? null : { says, is: 'windows-1252' }
  return isUtf8 ? { says, is: 'UTF-8' } : null
}

/** Text of a table: by its byte order mark, else UTF-8, else windows-1252, which spreadsheets still write. */
export function tableText(where: string, bytes: Uint8Array): { text: string; encoding: string | null } {
  const mark = byteOrderMark(bytes)
  for (const encoding of mark ? [mark] : ['utf-8', 'windows-1252']) {
    const text = decoded(bytes, encoding)
    if (text?.includes('\0')) throw new FormatRefusal('zero-bytes', where)
    if (text !== null) return { text, encoding: encoding === 'utf-8' ? null : encoding }
  }
  throw new FormatRefusal('not-its-mark', where)
}

/** One line of words for people: no line breaks, no characters that cannot be seen. */
export const oneLine = (text: string): string =>
  text
    .replace(/[\p{Cc}\u2028\u2029]+/gu, ' ')
    .replace(/ {2,}/g, ' ')
    .trim()
