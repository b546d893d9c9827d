import { Readable } from 'node:stream'
import { getHeader, setHeader, setHeaders, setResponseStatus, type H3Event } from 'h3'
import { byteRange } from '../../core/byte-range'
import { wellFormed } from '../../core/text'

/** A file as it is sent: its bytes never change under its hash. */
export interface Bytes {
  /** SHA-256, hexadecimal: the entity tag. */
  hash: string
  size: number
  mediaType: string
  inline: boolean
  name: string
  /** The bytes from the first to the last, both among them. */
  read: (first: number, last: number) => AsyncIterable<Buffer>
}
const namesTag = (field: string | undefined, tag: string): boolean =>
  field?.split(',').some(each => each.trim().replace(/^W\//, '') === tag || each.trim() === '*') ?? false

/**
 * Sends a file as a stream, whole or the one range that is asked for (RFC 9110, sections 13 and 14): 304 where the client has it
 * already, 206 for a part, 416 where the part is not there. Nothing in it may run or load anything, whatever it is.
 */
export function sendBytes(event: H3Event, file: Bytes): Readable | '' {
  const { size } = file
  const tag = `"${file.hash}"`
  const manner = file.inline ? 'inline' : 'attachment'
  setHeaders(event, {
    etag: tag,
    'cache-control': 'private, no-cache',
    'accept-ranges': 'bytes',
    'content-type': file.mediaType,
    'content-security-policy': `default-src 'none'; style-src 'unsafe-inline'; sandbox`,
    'content-disposition': `${manner}; filename*=UTF-8''${encodeURIComponent(wellFormed(file.name))}`,
  })
  if (namesTag(getHeader(event, 'if-none-match'), tag)) {
    setResponseStatus(event, 304)
    return ''
  }
  const ifRange = getHeader(event, 'if-range')
  const asked = ifRange === undefined || ifRange === tag ? getHeader(event, 'range') : undefined
  const range = asked === undefined ? null : byteRange(asked, size)
  if (range === 'unsatisfiable') {
    setHeader(event, 'content-range', `bytes */${size}`)
    setResponseStatus(event, 416)
    return ''
  }
  const { first, last } = range ?? { first: 0, last: size - 1 }
  if (range) {
    setHeader(event, 'content-range', `bytes ${first}-${last}/${size}`)
    setResponseStatus(event, 206)
  }
  setHeader(event, 'content-length', last - first + 1)
  // The answer to HEAD has the fields of GET, and no bytes are read for it.
  return event.context.isHead || size === 0 ? '' : Readable.from(file.read(first, last))
}
