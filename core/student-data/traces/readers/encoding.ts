import { pageText } from '../../../formats/text'
import { utf8Bytes } from './reader'

const marks: Readonly<Record<string, readonly number[]>> = {
  'utf-8': [0xef, 0xbb, 0xbf],
  'utf-16le': [0xff, 0xfe],
  'utf-16be': [0xfe, 0xff],
}
const markOf = (bytes: Uint8Array): string | null =>
  Object.keys(marks).find(name => marks[name]?.every((byte, at) => bytes[at] === byte)) ?? null

/** Text in UTF-16, without its mark. */
function utf16(text: string, isLittle: boolean): Uint8Array {
  const bytes = new Uint8Array(text.length * 2)
  const view = new DataView(bytes.buffer)
  for (let at = 0; at < text.length; at++) view.setUint16(at * 2, text.charCodeAt(at), isLittle)
  return bytes
}
/** Every letter of an encoding of one byte a letter, by the letter. */
function singleBytes(encoding: string): Map<string, number> {
  const letters = new Map<string, number>()
  for (let byte = 0; byte < 256; byte++) {
    const { text } = pageText(
      Uint8Array.of(...new TextEncoder().encode(`<meta charset="${encoding}">`), byte),
    )
    const letter = text.slice(-1)
    if (!letters.has(letter)) letters.set(letter, byte)
  }
  return letters
}
/**
 * What writes a text back as it was read: with its mark of byte order, and in its own encoding where each letter is a byte, so that whatever
 * reads the file next reads it as before. Where that cannot hold a letter, UTF-8.
 */
export function writerLike(bytes: Uint8Array, encoding: string | null): (text: string) => Uint8Array {
  const mark = markOf(bytes)
  if (mark) {
    const encode = mark === 'utf-8' ? utf8Bytes : (text: string) => utf16(text, mark === 'utf-16le')
    return text => Uint8Array.from([...(marks[mark] ?? []), ...encode(text)])
  }
  if (encoding === null || encoding === 'utf-8') return utf8Bytes
  return text => {
    const letters = singleBytes(encoding)
    const found = [...text].map(letter => letters.get(letter))
    return found.every(byte => byte !== undefined) ? Uint8Array.from(found) : utf8Bytes(text)
  }
}
