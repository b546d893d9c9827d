/** Bytes of a file from the first to the last, both among them. */
export interface ByteRange {
  readonly first: number
  readonly last: number
}
/**
 * What a Range field asks of a file of so many bytes (RFC 9110, section 14.1.2): one range of bytes. `null`: nothing that is served in
 * part (another unit, several ranges, no sense in it), so that the whole is sent; `unsatisfiable`: none of it is in the file.
 */
export function byteRange(field: string, size: number): ByteRange | null | 'unsatisfiable' {
  const [, from, to] = /^bytes=[ \t]*(\d{0,15})-(\d{0,15})[ \t]*$/.exec(field) ?? []
  if (from === undefined || to === undefined || (from === '' && to === '')) return null
  // "-500": the last 500 bytes.
  const first = from === '' ? Math.max(0, size - Number(to)) : Number(from)
  const last = from === '' || to === '' ? size - 1 : Math.min(Number(to), size - 1)
  if (from !== '' && to !== '' && Number(to) < Number(from)) return null
  return first >= size || (from === '' && Number(to) === 0) ? 'unsatisfiable' : { first, last }
}
