import { crc32, deflateRawSync } from 'node:zlib'
import { archiveOf, type Archive } from '../../core/formats/archive/archive'

const bytesOf = (content: string | Uint8Array): Uint8Array =>
  typeof content === 'string' ? new TextEncoder().encode(content) : content
/** Files in memory as an archive. */
export const memoryArchive = (name: string, files: Record<string, string | Uint8Array>): Archive =>
  archiveOf(name, new Map(Object.entries(files).map(([path, content]) => [path, bytesOf(content)])))

/** An entry as it is to be written, true or false; what is left out is right. */
export interface ZipEntry {
  name: string | Uint8Array
  content?: string | Uint8Array
  /** Name in the entry's own header. */
  localName?: string
  method?: number
  /** The size it gives. */
  size?: number
  sum?: number
  flags?: number
  mode?: number
  /** Reuse the data of the entry at this index: entries over one another. */
  over?: number
}

/** Writes a zip archive byte by byte (PKWARE APPNOTE 6.3; layout from memory), so that it can be wrong in any one place. */
export function zipOf(entries: readonly ZipEntry[], entryCount = entries.length): Buffer {
  const parts: Buffer[] = []
  const directory: Buffer[] = []
  const offsets: number[] = []
  let at = 0
  for (const entry of entries) {
    const content = bytesOf(entry.content ?? '')
    const method = entry.method ?? 8
    const packed = method === 8 ? deflateRawSync(content) : Buffer.from(content)
    const name = Buffer.from(bytesOf(entry.name))
    const localName = Buffer.from(entry.localName === undefined ? name : bytesOf(entry.localName))
    const common = Buffer.alloc(26)
    common.writeUInt16LE(20, 0)
    common.writeUInt16LE(entry.flags ?? 0x800, 2)
    common.writeUInt16LE(method, 4)
    common.writeUInt32LE(entry.sum ?? crc32(content), 10)
    common.writeUInt32LE(packed.length, 14)
    common.writeUInt32LE(entry.size ?? content.length, 18)
    common.writeUInt16LE(name.length, 22)
    const offset = entry.over === undefined ? at : offsets[entry.over]!
    offsets.push(offset)
    if (entry.over === undefined) {
      const local = Buffer.from(common)
      local.writeUInt16LE(localName.length, 22)
      const part = Buffer.concat([Buffer.from('PK\x03\x04', 'latin1'), local, localName, packed])
      parts.push(part)
      at += part.length
    }
    const tail = Buffer.alloc(14)
    tail.writeUInt32LE(((entry.mode ?? 0) << 16) >>> 0, 6)
    tail.writeUInt32LE(offset, 10)
    directory.push(
      Buffer.concat([Buffer.from('PK\x01\x02', 'latin1'), Buffer.from([20, 3]), common, tail, name]),
    )
  }
  const central = Buffer.concat(directory)
  const end = Buffer.alloc(18)
  end.writeUInt16LE(entryCount, 4)
  end.writeUInt16LE(entryCount, 6)
  end.writeUInt32LE(central.length, 8)
  end.writeUInt32LE(at, 12)
  return Buffer.concat([...parts, central, Buffer.from('PK\x05\x06', 'latin1'), end])
}
export const zipOfFiles = (files: Record<string, string | Uint8Array>): Buffer =>
  zipOf(Object.entries(files).map(([name, content]) => ({ name, content })))

const namespaces: Record<string, string> = {
  '1.0.0': 'imscc',
  '1.1.0': 'imsccv1p1',
  '1.2.0': 'imsccv1p2',
  '1.3.0': 'imsccv1p3',
}
/** A Common Cartridge manifest. */
export const manifestOf = (
  items: string,
  resources: string,
  version = '1.3.0',
  metadata = '',
): string => `<?xml version="1.0"?>
<manifest identifier="m" xmlns="http://www.imsglobal.org/xsd/${namespaces[version] ?? 'imsccv1p3'}/imscp_v1p1" xmlns:lom="http://ltsc.ieee.org/xsd/${namespaces[version] ?? 'imsccv1p3'}/LOM/manifest">
<metadata><schema>IMS Common Cartridge</schema><schemaversion>${version}</schemaversion>${metadata}</metadata>
<organizations><organization identifier="o" structure="rooted-hierarchy"><item identifier="root">${items}</item></organization></organizations>
<resources>${resources}</resources></manifest>`
export const itemXml = (id: string, title: string, inner = '', reference = ''): string =>
  `<item identifier="${id}"${reference && ` identifierref="${reference}"`}><title>${title}</title>${inner}</item>`
export const resourceXml = (id: string, type: string, href: string, more = ''): string =>
  `<resource identifier="${id}" type="${type}" href="${href}"><file href="${href}"/>${more}</resource>`
