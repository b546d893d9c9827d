import type { Archive } from '../../core/formats/archive/archive'
import { readLimits, type ReadLimits } from '../../core/formats/limits'
import { elementsBelow, readXml } from '../../core/formats/xml'
import { bufferSource, openZip } from '../exchange/files/zip'
import { textOfPdf } from './pdf'
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

const endingOf = (name: string): string => name.slice(name.lastIndexOf('.') + 1).toLowerCase()
/** The text of any body, files that were attached among them. What cannot be read has none: it is found by its title alone. */
export const anyText: TextOf = async (bytes, mediaType, name) => {
  try {
    const office = officeParts[endingOf(name)] ?? officeParts[officeTypes[mediaType] ?? '']
    if (office) return await textOfParts(await openZip(name, bufferSource(bytes), limits), office)
    if (mediaType === 'application/pdf') return tidy(await textOfPdf(bytes, searchedAtMost))
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
