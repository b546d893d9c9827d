/** What other kinds of file begin with (published signatures of the formats, from memory), as people call them. */
const signatures: readonly [start: RegExp, name: string][] = [
  [/^%PDF-/, 'a PDF document'],
  [/^\x89PNG/, 'a picture (PNG)'],
  [/^\xFF\xD8\xFF/, 'a picture (JPEG)'],
  [/^GIF8/, 'a picture (GIF)'],
  [/^\xD0\xCF\x11\xE0/, 'an old Office document; save it as XLSX or CSV'],
  [/^\{\\rtf/, 'a text document (RTF)'],
  [/^\x1F\x8B/, 'a packed file (gzip)'],
  [/^7z\xBC\xAF/, 'a packed archive (7z)'],
  [/^Rar!/, 'a packed archive (RAR)'],
  [/^\s*(<!doctype html|<html)/i, 'a web page'],
  [/^\s*<\?xml/, 'an XML document'],
  [/^\s*[[{]/, 'a JSON document'],
]
/** What a file is that is none of the kinds that are read, from its first bytes, one letter a byte; null where nothing tells. */
export const kindOfFile = (start: string): string | null =>
  signatures.find(([pattern]) => pattern.test(start))?.[1] ?? null

const inArchive: readonly [path: RegExp, name: string][] = [
  [/^word\/document\.xml$/, 'a text document (DOCX)'],
  [/^ppt\/presentation\.xml$/, 'a presentation (PPTX)'],
  [/^META-INF\/container\.xml$/, 'an electronic book (EPUB)'],
  [/^content\.xml$/, 'an OpenDocument file; save it as XLSX or CSV'],
]
/** What a zip archive is that is none of the kinds that are read; null where nothing tells. */
export const kindOfArchive = (paths: Iterable<string>): string | null => {
  const all = [...paths]
  return inArchive.find(([pattern]) => all.some(path => pattern.test(path)))?.[1] ?? null
}
