import { lineageLink, lineageOf } from '../../course/lineage'
import { itemsInOrder, mapItems, type CourseContent, type CourseNode, type ItemNode } from '../../course/model'
import { archiveLimits, unpack, utf8, type ArchiveLimits } from '../archive'
import { FormatRefusal, type Finding } from '../findings'
import { replaceLinks } from '../html/links'
import { childrenNamed, descend, parseXml, textAt, type XmlElement } from '../xml'
import { resourceReaders, type ResourceContent } from './resources'

/** A resource of the manifest: its type, main file and all its files (paths inside the package, decoded). */
export interface Resource { identifier: string, type: string, href: string | null, files: string[] }

const manifestName = 'imsmanifest.xml'
const fileBase = /^\$IMS-CC-FILEBASE\$\/?|^%24IMS-CC-FILEBASE%24\/?/i

/** A path as packages write it, made plain: percent signs decoded, `./` and `../` resolved against a folder. Null if it leads outside. */
export function resolvePath(folder: string, path: string): string | null {
  let decoded = path
  try { decoded = decodeURIComponent(path) }
  catch { /* a stray percent sign stands for itself */ }
  const parts = folder ? folder.split('/') : []
  for (const part of decoded.split('/')) {
    if (part === '..') { if (parts.pop() === undefined) return null }
    else if (part !== '.' && part !== '') parts.push(part)
  }
  return parts.join('/')
}
const folderOf = (path: string): string => path.slice(0, Math.max(0, path.lastIndexOf('/')))

function readResources(manifest: XmlElement): Map<string, Resource> {
  const resources = new Map<string, Resource>()
  for (const element of childrenNamed(descend(manifest, 'resources') ?? manifest, 'resource')) {
    const base = element.attributes['xml:base'] ?? ''
    const path = (href: string | undefined) => href === undefined ? null : resolvePath(base.replace(/\/$/, ''), href)
    const files = childrenNamed(element, 'file').map(file => path(file.attributes.href)).filter(file => file !== null)
    const identifier = element.attributes.identifier ?? ''
    resources.set(identifier, { identifier, type: element.attributes.type ?? '', href: path(element.attributes.href) ?? files[0] ?? null, files })
  }
  return resources
}

/**
 * Reads a 1EdTech Common Cartridge 1.3 package: the organisation's tree into units and items in its order and nesting, each
 * with its content; resources that no organisation item shows come after them. `courseKey` makes the lineage keys.
 * Structure from the Common Cartridge 1.3 profile of IMS Content Packaging 1.2 (element names from memory).
 * @throws FormatRefusal where the file is no such package.
 */
export function readCartridge(name: string, bytes: Uint8Array, courseKey: string, limits: ArchiveLimits = archiveLimits): { content: CourseContent, findings: Finding[] } {
  const files = unpack(name, bytes, limits)
  const manifestBytes = files.get(manifestName)
  if (!manifestBytes) throw new FormatRefusal(name, `holds no ${manifestName}: it is not a Common Cartridge`)
  const manifest = parseXml(manifestName, utf8(manifestName, manifestBytes))
  if (manifest.name !== 'manifest') throw new FormatRefusal(name, `${manifestName} starts with <${manifest.name}>, not <manifest>`)
  const version = textAt(manifest, 'metadata', 'schemaversion')
  if (!version?.startsWith('1.3')) throw new FormatRefusal(name, `is Common Cartridge ${version ?? 'of no stated version'}; version 1.3 is read here`)

  const findings: Finding[] = []
  const resources = readResources(manifest)
  const contents = new Map<string, ResourceContent>()
  const contentOf = (resource: Resource): ResourceContent => {
    let content = contents.get(resource.identifier)
    if (!content) contents.set(resource.identifier, content = readContent(resource, files, findings))
    return content
  }
  const shown = new Set<string>()
  const seen = new Set<string>()
  const node = (element: XmlElement, depth: number): CourseNode | null => {
    const identifier = element.attributes.identifier ?? ''
    const title = textAt(element, 'title') ?? 'Untitled'
    const where = `${manifestName} line ${element.line}`
    if (!identifier || seen.has(identifier)) {
      findings.push({ severity: 'error', where, message: `“${title}” has ${identifier ? `the identifier ${identifier}, which another item has too` : 'no identifier'}; it was left out` })
      return null
    }
    seen.add(identifier)
    const lineage = lineageOf(courseKey, identifier)
    const children = childrenNamed(element, 'item').map(child => node(child, depth + 1)).filter(child => child !== null)
    const reference = element.attributes.identifierref
    if (reference === undefined && (depth === 0 || children.length > 0)) return { type: 'unit', lineage, identifier, title, children }
    const resource = reference === undefined ? null : resources.get(reference) ?? null
    if (reference !== undefined && !resource) findings.push({ severity: 'error', where, message: `“${title}” points to the resource ${reference}, which the package does not list; it came as a heading` })
    if (resource) shown.add(resource.identifier)
    const content = resource ? contentOf(resource) : headingContent
    const nested = children.filter((child): child is ItemNode => child.type === 'item')
    if (nested.length < children.length) findings.push({ severity: 'warning', where, message: `units inside the item “${title}” were left out` })
    return { ...itemOf(lineage, identifier, title, content), resource: resource?.identifier ?? null, children: nested }
  }
  // The organisation holds one root item, which stands for the course itself.
  const root = descend(manifest, 'organizations', 'organization', 'item')
  const nodes = root ? childrenNamed(root, 'item').map(element => node(element, 0)).filter(found => found !== null) : []
  if (!root) findings.push({ severity: 'warning', where: manifestName, message: 'has no organisation: everything in it came without order' })
  for (const resource of resources.values()) {
    if (shown.has(resource.identifier)) continue
    const content = contentOf(resource)
    const title = content.title ?? resource.href?.split('/').at(-1) ?? resource.identifier
    nodes.push({ ...itemOf(lineageOf(courseKey, resource.identifier), resource.identifier, title, content), resource: resource.identifier })
  }
  const title = textAt(manifest, 'metadata', 'lom', 'general', 'title', 'string') ?? textAt(root, 'title') ?? name
  return { content: { title, nodes: linkUp(nodes, resources, findings), categories: [] }, findings }
}

const headingContent: ResourceContent = { kind: 'heading', title: null, body: null, points: null, settings: {} }
const itemOf = (lineage: string, identifier: string, title: string, content: ResourceContent): ItemNode => ({
  type: 'item', lineage, identifier, resource: null, kind: content.kind, title, body: content.body, points: content.points,
  state: 'visible', exam: false, category: null, settings: content.settings, slots: {}, children: [],
})

function readContent(resource: Resource, files: Map<string, Uint8Array>, findings: Finding[]): ResourceContent {
  const reader = resourceReaders.find(entry => entry.type.test(resource.type))
  const where = resource.href ?? resource.identifier
  const bytes = resource.href === null ? undefined : files.get(resource.href)
  if (!reader) {
    findings.push({ severity: 'warning', where, message: `a resource of type ${resource.type || 'nothing'} is not read; it came as a file` })
    return { kind: 'file', title: null, body: bytes ? { mediaType: 'application/octet-stream', bytes } : null, points: null, settings: {} }
  }
  if (!bytes) {
    findings.push({ severity: 'error', where, message: `the package does not hold the file of the resource ${resource.identifier}` })
    return { kind: reader.kind, title: null, body: null, points: null, settings: {} }
  }
  try { return reader.read(resource.href!, bytes) }
  catch (error) {
    if (!(error instanceof FormatRefusal)) throw error
    findings.push({ severity: 'error', where, message: `${error.reason}; it came as a file` })
    return { kind: 'file', title: null, body: { mediaType: 'application/octet-stream', bytes }, points: null, settings: {} }
  }
}

/** Turns addresses of other parts of the package, in HTML, into lineage links. What cannot be found is said and left as it is. */
function linkUp(nodes: readonly CourseNode[], resources: ReadonlyMap<string, Resource>, findings: Finding[]): CourseNode[] {
  const lineageByPath = new Map<string, string>()
  for (const { item } of itemsInOrder(nodes)) {
    const resource = item.resource === null ? undefined : resources.get(item.resource)
    for (const path of resource ? [resource.href, ...resource.files] : [])
      if (path !== null && !lineageByPath.has(path)) lineageByPath.set(path, item.lineage)
  }
  const link = (item: ItemNode): ItemNode => {
    const resource = item.resource === null ? undefined : resources.get(item.resource)
    if (item.body?.mediaType !== 'text/html' || !resource?.href) return item
    const from = resource.href
    const html = new TextDecoder().decode(item.body.bytes)
    const linked = replaceLinks(html, (address) => {
      if (/^([a-z][a-z0-9+.-]*:|\/\/|#|$)/i.test(address)) return null
      const [, path = '', rest = ''] = /^([^?#]*)(.*)$/s.exec(address)!
      const target = fileBase.test(path) ? resolvePath('', path.replace(fileBase, '')) : resolvePath(folderOf(from), path)
      const lineage = target === null ? undefined : lineageByPath.get(target)
      if (lineage) return lineageLink(lineage) + rest
      findings.push({ severity: 'warning', where: from, message: `links to ${address}, which the package does not hold` })
      return null
    })
    return linked === html ? item : { ...item, body: { mediaType: 'text/html', bytes: new TextEncoder().encode(linked) } }
  }
  return mapItems(nodes, link)
}
