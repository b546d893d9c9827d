import { unzlibSync } from 'fflate'
import { segment, type Segment } from '../markup'
import { oneText, type BodyReader, type FileFacts, type OpenBody } from './reader'

const latin = (bytes: Uint8Array): string => {
  let text = ''
  for (const byte of bytes) text += String.fromCharCode(byte)
  return text
}
/** Bytes as text: UTF-8 where they are that, else letter by letter; control characters are blanks. */
function said(bytes: Uint8Array): string {
  let text: string
  try {
    text = new TextDecoder('utf-8', { fatal: true }).decode(bytes)
  } catch {
    text = latin(bytes)
  }
  return text.replace(/\p{Cc}+/gu, ' ')
}
/** The same, and what stands in it as UTF-16, in which some programs write a picture's author: from whichever byte, in whichever order. */
function saidInFull(bytes: Uint8Array): string {
  const letters = latin(bytes)
  const [little, big] = [letters.search(/(?:[^\0]\0){4}/), letters.search(/(?:\0[^\0]){4}/)]
  if (little < 0 && big < 0) return said(bytes)
  const isBig = big >= 0 && (little < 0 || big < little)
  const wide = new TextDecoder(isBig ? 'utf-16be' : 'utf-16le').decode(
    bytes.subarray((isBig ? big : little) % 2),
  )
  return `${said(bytes)} ${wide.replace(/\p{Cc}+/gu, ' ')}`
}
interface Block {
  readonly from: number
  readonly to: number
  readonly text: string | null
}
/** Blocks of a JPEG (ITU-T T.81, annex B): what programs and comments say of it stands in APP1, APP3 to APP13 and COM. */
function jpegBlocks(bytes: Uint8Array): Block[] {
  const blocks: Block[] = []
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength)
  let at = 2
  while (at + 4 <= bytes.length && bytes[at] === 0xff) {
    const marker = bytes[at + 1] ?? 0
    if (marker === 0xda || marker === 0xd9) break
    const to = at + 2 + view.getUint16(at + 2)
    const tells = marker === 0xfe || marker === 0xe1 || (marker >= 0xe3 && marker <= 0xed)
    if (to > bytes.length) break
    const body = bytes.subarray(at + 4, to)
    if (tells) blocks.push({ from: at, to, text: saidInFull(body) })
    at = to
  }
  return blocks
}
/** Chunks of a PNG (ISO/IEC 15948, section 11.3): tEXt, zTXt, iTXt and eXIf say something of it. */
function pngBlocks(bytes: Uint8Array): Block[] {
  const blocks: Block[] = []
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength)
  let at = 8
  while (at + 12 <= bytes.length) {
    const to = at + 12 + view.getUint32(at)
    const name = latin(bytes.subarray(at + 4, at + 8))
    if (to > bytes.length) break
    const body = bytes.subarray(at + 8, to - 4)
    if (/^(tEXt|iTXt|eXIf)$/.test(name)) blocks.push({ from: at, to, text: saidInFull(body) })
    if (name === 'zTXt') blocks.push({ from: at, to, text: unpacked(body) })
    at = to
  }
  return blocks
}
function unpacked(body: Uint8Array): string {
  try {
    return said(unzlibSync(body.subarray(body.indexOf(0) + 2), { out: new Uint8Array(1 << 20) }))
  } catch {
    return said(body)
  }
}
/** Chunks of a WebP (RFC 9649): EXIF and XMP. */
function webpBlocks(bytes: Uint8Array): Block[] {
  const blocks: Block[] = []
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength)
  let at = 12
  while (at + 8 <= bytes.length) {
    const size = view.getUint32(at + 4, true)
    // The last chunk may lack the byte that would make it even.
    const to = Math.min(at + 8 + size + (size % 2), Math.max(bytes.length, at + 8 + size))
    const name = latin(bytes.subarray(at, at + 4))
    if (to > bytes.length) break
    const body = bytes.subarray(at + 8, at + 8 + size)
    if (/^(EXIF|XMP )$/.test(name)) blocks.push({ from: at, to, text: saidInFull(body) })
    at = to
  }
  return blocks
}
/** Extensions of a GIF (GIF89a, sections 24 and 26): comments, and what programs say of it. */
function gifBlocks(bytes: Uint8Array): Block[] {
  const blocks: Block[] = []
  const tableOf = (flags: number): number => (flags & 0x80 ? 3 * 2 ** ((flags & 7) + 1) : 0)
  let at = 13 + tableOf(bytes[10] ?? 0)
  const endOfParts = (from: number): number => {
    let to = from
    while (to < bytes.length && bytes[to] !== 0) to += (bytes[to] ?? 0) + 1
    return to + 1
  }
  while (at < bytes.length && bytes[at] !== 0x3b) {
    if (bytes[at] === 0x2c) at = endOfParts(at + 11 + tableOf(bytes[at + 9] ?? 0))
    else if (bytes[at] === 0x21) {
      const to = endOfParts(at + 2)
      const tells = bytes[at + 1] === 0xfe || latin(bytes.subarray(at + 3, at + 14)) === 'XMP DataXMP'
      if (tells && to <= bytes.length)
        blocks.push({ from: at, to, text: saidInFull(bytes.subarray(at + 3, to)) })
      at = to
    } else break
  }
  return blocks
}
function blocksOf(bytes: Uint8Array): Block[] {
  if (bytes[0] === 0xff && bytes[1] === 0xd8) return jpegBlocks(bytes)
  if (bytes[0] === 0x89 && bytes[1] === 0x50) return pngBlocks(bytes)
  if (latin(bytes.subarray(0, 4)) === 'GIF8') return gifBlocks(bytes)
  return latin(bytes.subarray(8, 12)) === 'WEBP' ? webpBlocks(bytes) : []
}
/** What a picture says of itself. It is taken out whole or stays: half of such a block is none. */
function openPicture({ bytes }: FileFacts): OpenBody {
  const blocks = blocksOf(bytes)
  const raw = blocks.map(block => block.text ?? '').join('\n')
  const segments: Segment[] =
    raw.trim() === '' ? [] : [{ ...segment('metadata', raw), whole: [0, raw.length] }]
  return {
    ...oneText(raw, segments),
    write: ([text]) => {
      if (text === raw) return bytes
      const kept = new Uint8Array(blocks.reduce((size, { from, to }) => size - (to - from), bytes.length))
      let [at, length] = [0, 0]
      for (const block of [...blocks, { from: bytes.length, to: bytes.length }]) {
        kept.set(bytes.subarray(at, block.from), length)
        length += block.from - at
        at = block.to
      }
      return sized(kept)
    },
  }
}
/** A WebP names its own length after the first four letters. */
function sized(bytes: Uint8Array): Uint8Array {
  if (latin(bytes.subarray(8, 12)) === 'WEBP')
    new DataView(bytes.buffer, bytes.byteOffset).setUint32(4, bytes.length - 8, true)
  return bytes
}
export const pictures: BodyReader = {
  words: ['picture', 'pictures'],
  isTable: false,
  open: openPicture,
}
