import { SaxesParser } from 'saxes'
import { FormatRefusal } from './findings'

/** An XML element: local name, namespace, attributes by local name (prefixed ones by `prefix:name`), children in order, and the line it starts on. */
export interface XmlElement {
  readonly name: string
  readonly namespace: string
  readonly attributes: Readonly<Record<string, string>>
  readonly children: XmlElement[]
  text: string
  readonly line: number
}

/** Parses a document into a tree. Refuses what is not well formed, and any document type declaration: entities could expand or reach out. */
export function parseXml(where: string, text: string): XmlElement {
  const parser = new SaxesParser({ xmlns: true, position: true })
  const open: XmlElement[] = []
  let root: XmlElement | null = null
  parser.on('error', (error) => { throw new FormatRefusal(where, `is not well-formed XML (${error.message})`) })
  parser.on('doctype', () => { throw new FormatRefusal(where, `line ${parser.line}: has a document type declaration, which is not read`) })
  parser.on('opentag', (tag) => {
    const element: XmlElement = {
      name: tag.local,
      namespace: tag.uri,
      attributes: Object.fromEntries(Object.values(tag.attributes).map(entry => [entry.prefix && entry.prefix !== 'xmlns' ? `${entry.prefix}:${entry.local}` : entry.local, entry.value])),
      children: [],
      text: '',
      line: parser.line,
    }
    open.at(-1)?.children.push(element)
    root ??= element
    open.push(element)
  })
  parser.on('closetag', () => { open.pop() })
  const add = (value: string) => { const top = open.at(-1); if (top) top.text += value }
  parser.on('text', add)
  parser.on('cdata', add)
  parser.write(text).close()
  return root!
}

/** Children with a local name. */
export const childrenNamed = (element: XmlElement, name: string): XmlElement[] => element.children.filter(child => child.name === name)
/** The first element down a path of local names. */
export const descend = (element: XmlElement | undefined, ...path: string[]): XmlElement | undefined =>
  path.reduce<XmlElement | undefined>((at, name) => at?.children.find(child => child.name === name), element)
/** Trimmed text of the first element down a path, or null. */
export const textAt = (element: XmlElement | undefined, ...path: string[]): string | null => descend(element, ...path)?.text.trim() || null
/** All elements below, depth first. */
export function* elementsBelow(element: XmlElement): Generator<XmlElement> {
  for (const child of element.children) { yield child; yield* elementsBelow(child) }
}
