import { SaxesParser } from 'saxes'
import type { ReadLimits } from './limits'
import { FormatRefusal } from './refusal'
import { xmlText } from './text'

/** An XML element: local name, namespace, attributes by local name (prefixed ones by `prefix:name`), children in order, own text, and the line it starts on. */
export interface XmlElement {
  readonly name: string
  readonly namespace: string
  readonly attributes: Readonly<Record<string, string>>
  readonly children: XmlElement[]
  text: string
  readonly line: number
  /** Where its content starts and its end tag ends, in characters of the document. */
  readonly from: number
  to: number
}

const shown = new Map<string, string>()
/** Attribute keys are few and come often. */
const keyOf = (prefix: string, local: string): string => {
  if (!prefix || prefix === 'xmlns') return local
  const key = `${prefix}:${local}`
  return shown.get(key) ?? (shown.size < 1000 ? shown.set(key, key) : shown, key)
}

/** Parses the text of a document into a tree. Refuses what is not well formed, nests too deeply, or has a document type declaration: entities could expand or reach out. */
export function parseXml(where: string, text: string, limits: Pick<ReadLimits, 'xmlDepth'>): XmlElement {
  const parser = new SaxesParser({ xmlns: true, position: true })
  const open: XmlElement[] = []
  let root: XmlElement | null = null
  parser.on('error', error => {
    const why = error.message.replace(/^\d+:\d+: /, '')
    throw new FormatRefusal('not-well-formed', where, { line: parser.line, why })
  })
  parser.on('doctype', () => {
    throw new FormatRefusal('document-type', where, { line: parser.line })
  })
  parser.on('opentag', tag => {
    const attributes: Record<string, string> = {}
    for (const key in tag.attributes) {
      const entry = tag.attributes[key]!
      attributes[keyOf(entry.prefix, entry.local)] = entry.value
    }
    const element: XmlElement = {
      name: tag.local,
      namespace: tag.uri,
      attributes,
      children: [],
      text: '',
      line: parser.line,
      from: parser.position,
      to: parser.position,
    }
    const parent = open.at(-1)
    if (parent) parent.children.push(element)
    else root ??= element
    if (open.push(element) > limits.xmlDepth)
      throw new FormatRefusal('elements-too-deep', where, { line: parser.line, most: limits.xmlDepth })
  })
  parser.on('closetag', () => {
    open.pop()!.to = parser.position
  })
  const add = (value: string) => {
    const top = open.at(-1)
    if (top) top.text += value
  }
  parser.on('text', add)
  parser.on('cdata', add)
  parser.write(text).close()
  return root!
}

/** Reads a document from its bytes. @throws FormatRefusal as `parseXml`, and where it is too large or in the wrong encoding. */
export function readXml(
  where: string,
  bytes: Uint8Array,
  limits: Pick<ReadLimits, 'xmlDepth' | 'xmlBytes'>,
): XmlElement {
  if (bytes.length > limits.xmlBytes)
    throw new FormatRefusal('xml-too-long', where, { bytes: limits.xmlBytes })
  return parseXml(where, xmlText(where, bytes), limits)
}

/** Children with a local name, in the element's own namespace: what an extension calls by the same name is not meant. */
export const childrenNamed = (element: XmlElement, name: string): XmlElement[] =>
  element.children.filter(child => child.name === name && child.namespace === element.namespace)
/** The first element down a path of local names, in whichever namespace. */
export const descend = (element: XmlElement | undefined, ...path: string[]): XmlElement | undefined =>
  path.reduce<XmlElement | undefined>((at, name) => at?.children.find(child => child.name === name), element)
/** Trimmed text of the first element down a path, or null. */
export const textAt = (element: XmlElement | undefined, ...path: string[]): string | null =>
  descend(element, ...path)?.text.trim() || null
/** All elements below, depth first. */
export function elementsBelow(element: XmlElement, into: XmlElement[] = []): XmlElement[] {
  for (const child of element.children) {
    into.push(child)
    if (child.children.length > 0) elementsBelow(child, into)
  }
  return into
}

/** Text as XML character data, and as the value of an attribute in double quotes. */
export const escapeText = (text: string): string =>
  text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;').replace(/\r/g, '&#13;')
export const escapeAttribute = (text: string): string =>
  escapeText(text)
    .replace(/"/g, '&quot;')
    .replace(/[\n\t]/g, character => `&#${character.charCodeAt(0)};`)
