import { present } from '../../present'
import { noDates } from '../../course/dates'
import { itemKindDefinitions } from '../../course/kinds'
import { lineageLink, lineageOf } from '../../course/lineage'
import type { Body, CourseContent, CourseNode, ItemKind, ItemNode } from '../../course/model'
import type { Archive } from '../archive/archive'
import { findingList, type Finding, type FindingList } from '../findings'
import { replaceLinks } from '../html/links'
import { readLimits, type ReadLimits } from '../limits'
import { FormatRefusal } from '../refusal'
import { encodingContradiction, pageText } from '../text'
import { readXml } from '../xml'
import { readManifest, titleOf, type Manifest, type OrganisationItem, type Resource } from './manifest'
import { fileNameOf, pathFinder, pathsMeant } from './paths'
import {
  isWebContent,
  mediaTypeOf,
  resourceReaders,
  type ReadContext,
  type ResourceContent,
  type ResourceReader,
} from './resources'
import { versionOf } from './versions'

const manifestName = 'imsmanifest.xml'
export interface ReadOptions {
  /** Makes the lineage keys. */
  courseKey: string
  limits?: ReadLimits
  /** Told of bytes read and bytes in all. */
  progress?: (done: number, total: number) => void
}
export interface CartridgeRead {
  content: CourseContent
  version: string
  findings: Finding[]
  /** Lineage keys of what stands in no item and is used by something else in the package: the picture on a page, the file of a topic. */
  aside: ReadonlySet<string>
}

/** Whether an archive holds a cartridge, and in which folder: packages are found that were packed with the folder around them. */
export function cartridgeFolder(archive: Archive): string | null {
  if (archive.entries.has(manifestName)) return ''
  const found = [...archive.entries.keys()].filter(
    path => path.endsWith(`/${manifestName}`) && path.split('/').length === 2,
  )
  return found.length === 1 ? present(found[0]).slice(0, -manifestName.length) : null
}

/** The archive as it is seen from one of its folders. */
const inFolder = (archive: Archive, folder: string): Archive =>
  folder === ''
    ? archive
    : {
        name: archive.name,
        entries: new Map(
          [...archive.entries]
            .filter(([path]) => path.startsWith(folder))
            .map(([path, entry]) => [
              path.slice(folder.length),
              { ...entry, path: path.slice(folder.length) },
            ]),
        ),
        bytes: path => archive.bytes(folder + path),
        chunks: path => archive.chunks(folder + path),
        check: (path, seen) => archive.check(folder + path, seen),
      }

/**
 * Reads a 1EdTech Common Cartridge 1.0 to 1.3: the organisation's tree into units and items in its order and nesting, each with
 * its content; what no item shows comes after them. Every file of the package is unpacked and checked once; none is kept in
 * memory. Structure from the Common Cartridge profiles of IMS Content Packaging (element names from memory).
 * @throws FormatRefusal where the archive is no such package, or made to do harm.
 */
export async function readCartridge(
  whole: Archive,
  { courseKey, limits = readLimits, progress = () => {} }: ReadOptions,
): Promise<CartridgeRead> {
  const folder = cartridgeFolder(whole)
  if (folder === null) throw new FormatRefusal('no-cartridge', whole.name, { manifest: manifestName })
  const archive = inFolder(whole, folder)
  const findings = findingList(limits.findings)
  if (folder !== '') findings.add('packed-in-folder', whole.name, { folder })
  if (present(archive.entries.get(manifestName)).size > limits.xmlBytes)
    throw new FormatRefusal('too-large', manifestName, { bytes: limits.xmlBytes })
  const root = readXml(manifestName, await archive.bytes(manifestName), limits)
  if (root.name !== 'manifest')
    throw new FormatRefusal('starts-otherwise', manifestName, { found: root.name, wanted: 'manifest' })
  const version = versionOf(whole.name, root, manifestName, findings)
  const manifest = readManifest(root, manifestName, limits, findings)
  const places = placesOf(archive, manifest, courseKey, findings)
  const contents = await readContents({ archive, manifest, places, limits, findings, progress })
  const { nodes, others } = buildNodes({ archive, manifest, places, contents, courseKey, limits, findings })
  return {
    content: {
      title: manifest.title ?? whole.name,
      language: manifest.language,
      nodes: [...nodes, ...others],
      categories: [],
    },
    version,
    findings: findings.all(),
    aside: new Set(others.map(node => node.lineage).filter(lineage => places.used.has(lineage))),
  }
}

/** Where everything in the package is: which items there are, what each path leads to. */
interface Places {
  /** The file of the archive for a path as the manifest gives it. */
  file: (path: string) => string | null
  /** Lineage key of what a file of the archive is, or null where it is nothing yet. */
  lineage: (path: string) => string | null
  /** Resources that an item shows, after variants. */
  shown: ReadonlyMap<string, Resource>
  items: ReadonlyMap<OrganisationItem, Resource | null>
  byHref: ReadonlyMap<string, Resource[]>
  /** Further files: of resources with several, or that only a link names. */
  loose: Set<string>
  used: Set<string>
  /** Files whose bytes cannot be had. */
  damaged: Set<string>
  looseLineage: (path: string) => string
}

function placesOf(
  archive: Archive,
  { items, resources }: Manifest,
  courseKey: string,
  findings: FindingList,
): Places {
  const find = pathFinder(archive.entries.keys())
  const shown = new Map<string, Resource>()
  const byItem = new Map<OrganisationItem, Resource | null>()
  const lineages = new Map<string, string>()
  const byHref = new Map<string, Resource[]>()
  const used = new Set<string>()
  const looseLineage = (path: string): string => lineageOf(courseKey, `file:${path}`)
  const richest = (resource: Resource): Resource => {
    const variant = resource.variants
      .map(id => resources.get(id))
      .find(found => found !== undefined && resourceReaders.some(reader => reader.type.test(found.type)))
    if (!variant) return resource
    used.add(lineageOf(courseKey, resource.identifier))
    return variant
  }
  const visit = (list: readonly OrganisationItem[]): void =>
    list.forEach(item => {
      const where = `${manifestName}, line ${item.line}`
      const title = item.title ?? 'Untitled'
      const named = item.reference === null ? undefined : resources.get(item.reference)
      if (item.reference !== null && !named)
        findings.add('resource-unlisted', where, { title, resource: item.reference })
      const resource = named ? richest(named) : null
      byItem.set(item, resource)
      if (resource) {
        shown.set(resource.identifier, resource)
        const path = resource.href === null ? null : find(resource.href)
        if (path !== null && !lineages.has(path)) lineages.set(path, lineageOf(courseKey, item.identifier))
      }
      visit(item.children)
    })
  visit(items)
  const loose = new Set<string>()
  for (const resource of resources.values()) {
    const path = resource.href === null ? null : find(resource.href)
    if (path !== null) {
      byHref.set(path, [...(byHref.get(path) ?? []), resource])
      if (!lineages.has(path)) lineages.set(path, lineageOf(courseKey, resource.identifier))
    }
    for (const id of resource.dependencies) {
      const other = resources.get(id)
      if (other) used.add(lineageOf(courseKey, other.identifier))
      else
        findings.add('dependency-unlisted', `${manifestName}, line ${resource.line}`, {
          resource: resource.identifier,
          needs: id,
        })
    }
  }
  for (const resource of resources.values())
    for (const file of resource.files) {
      if (file === resource.href) continue
      const path = find(file)
      if (path === null)
        findings.add('file-absent', `${manifestName}, line ${resource.line}`, {
          resource: resource.identifier,
          file,
        })
      else if (!byHref.has(path)) {
        loose.add(path)
        lineages.set(path, looseLineage(path))
        used.add(looseLineage(path))
      }
    }
  return {
    file: find,
    lineage: path => lineages.get(path) ?? null,
    shown,
    items: byItem,
    byHref,
    loose,
    used,
    damaged: new Set(),
    looseLineage,
  }
}

/** Makes what a reader may ask for while it reads one file. */
function contextOf(
  where: string,
  archive: Archive,
  places: Places,
  limits: ReadLimits,
  findings: FindingList,
): ReadContext {
  const target = (address: string, how: 'links to' | 'attaches'): string | null => {
    const meant = pathsMeant(where, address)
    if (meant === null) return null
    const path = meant.paths.map(places.file).find(found => found !== null)
    if (path === undefined || path === null) {
      findings.add('link-absent', where, { how, address })
      return null
    }
    const known = places.lineage(path)
    if (known === null && path !== manifestName) {
      if (!places.loose.has(path)) findings.add('led-to', path)
      places.loose.add(path)
    }
    const lineage = known ?? places.looseLineage(path)
    places.used.add(lineage)
    return lineageLink(lineage) + meant.rest
  }
  return {
    where,
    limits,
    findings,
    linked: html => replaceLinks(html, address => target(address, 'links to')),
    target: address => target(address, 'attaches'),
  }
}

const silent: FindingList = { add() {}, all: () => [] }
const xmlReader = (resource: Resource) => resourceReaders.find(entry => entry.type.test(resource.type))
const encode = (text: string): Uint8Array => new TextEncoder().encode(text)

interface Reading {
  archive: Archive
  manifest: Manifest
  places: Places
  limits: ReadLimits
  findings: FindingList
  progress: (done: number, total: number) => void
}

/** Unpacks every file once, in the order in which they lie: documents are read, links looked at, everything compared with its checksum. */
async function readContents({
  archive,
  places,
  limits,
  findings,
  progress,
}: Reading): Promise<Map<Resource, ResourceContent>> {
  const contents = new Map<Resource, ResourceContent>()
  const total = [...archive.entries.values()].reduce((sum, entry) => sum + entry.size, 0)
  let done = 0
  for (const { path, size } of archive.entries.values()) {
    const resources = places.byHref.get(path) ?? []
    const documents = resources.filter(resource => xmlReader(resource))
    const isPage = mediaTypeOf(path) === 'text/html' && size <= limits.pageBytes
    try {
      if (path === manifestName) {
        /* read already */
      } else if ((documents.length > 0 && size <= limits.xmlBytes) || isPage) {
        const bytes = await archive.bytes(path)
        const contradiction = encodingContradiction(bytes)
        // A document that is not in the UTF-8 it claims is refused, which says it already.
        const isTold = documents.length > 0 && contradiction?.is === 'windows-1252'
        if (contradiction && !isTold) findings.add('encoding-contradicts', path, contradiction)
        const context = contextOf(path, archive, places, limits, findings)
        for (const resource of documents) contents.set(resource, readDocument(resource, bytes, context))
        if (isPage && documents.length === 0) {
          const { text, encoding } = pageText(bytes)
          if (encoding !== null && !contradiction) findings.add('encoding', path, { encoding })
          context.linked(text)
        }
      } else {
        if (documents.length > 0) findings.add('xml-too-long', path, { bytes: limits.xmlBytes })
        await archive.check(path, seen => progress(done + seen, total))
      }
    } catch (error) {
      if (!(error instanceof FormatRefusal) || error.why !== 'unlike') throw error
      findings.add('damaged', error.where, { reason: error.reason })
      places.damaged.add(path)
    }
    done += size
    progress(done, total)
  }
  return contents
}

/** What is remembered of a document: not its text, and no string that is a slice of it and would keep the whole in memory. */
function remembered({ body, ...content }: ResourceContent): ResourceContent {
  return {
    ...(JSON.parse(JSON.stringify(content)) as Omit<ResourceContent, 'body'>),
    body: body && { mediaType: body.mediaType, text: '' },
  }
}
function readDocument(resource: Resource, bytes: Uint8Array, context: ReadContext): ResourceContent {
  try {
    return remembered(present(xmlReader(resource)).read(bytes, context))
  } catch (error) {
    if (!(error instanceof FormatRefusal) || error.why !== 'unlike') throw error
    context.findings.add('unlike-its-type', error.where, { reason: error.reason })
    return {
      kind: 'file',
      title: null,
      body: null,
      points: null,
      settings: { fileName: fileNameOf(present(resource.href)) },
    }
  }
}

/** A page as it came, but for its links, in UTF-8; a document as its reader gives it; any other file as its bytes. */
function bodyAt(
  path: string,
  resource: Resource | null,
  archive: Archive,
  places: Places,
  limits: ReadLimits,
  content: ResourceContent | undefined,
): Body | null {
  if (places.damaged.has(path)) return null
  const context = () => contextOf(path, archive, places, limits, silent)
  if (content && content.kind !== 'file') {
    if (content.body === null) return null
    return {
      mediaType: content.body.mediaType,
      async *chunks() {
        yield encode(
          present(xmlReader(present(resource))).read(await archive.bytes(path), context()).body?.text ?? '',
        )
      },
    }
  }
  const mediaType = mediaTypeOf(path)
  if (mediaType !== 'text/html' || present(archive.entries.get(path)).size > limits.pageBytes)
    return {
      mediaType: mediaType === 'text/html' ? 'application/octet-stream' : mediaType,
      chunks: () => archive.chunks(path),
    }
  return {
    mediaType,
    async *chunks() {
      yield encode(context().linked(pageText(await archive.bytes(path)).text))
    },
  }
}

/** What a resource becomes: what its document says, else a page where it is HTML, else a file. */
function kindOf(
  content: ResourceContent | undefined,
  isPage: boolean,
  document: ResourceReader | null | undefined,
): ItemKind {
  if (content && content.kind !== 'file') return content.kind
  if (isPage) return 'page'
  return document?.kind ?? 'file'
}

interface Building extends Omit<Reading, 'progress'> {
  contents: ReadonlyMap<Resource, ResourceContent>
  courseKey: string
}

/** The organisation's tree, and apart from it what no item of it shows. */
function buildNodes({ archive, manifest, places, contents, courseKey, limits, findings }: Building): {
  nodes: CourseNode[]
  others: ItemNode[]
} {
  const blank = {
    resource: null,
    body: null,
    points: null,
    state: 'visible',
    exam: false,
    category: null,
    settings: {},
    dates: noDates,
    children: [],
  } as const
  const lineageOfResource = (id: string): string | null => {
    const resource = manifest.resources.get(id)
    const path = resource?.href ? places.file(resource.href) : null
    if (!resource) return null
    return path === null ? lineageOf(courseKey, resource.identifier) : places.lineage(path)
  }
  const itemOf = (
    lineage: string,
    identifier: string,
    title: string | null,
    resource: Resource,
    visible: boolean,
  ): ItemNode => {
    const content = contents.get(resource)
    const path = resource.href === null ? null : places.file(resource.href)
    const where = path ?? `${manifestName}, line ${resource.line}`
    const document = xmlReader(resource)
    if (path === null) findings.add('no-file', where, { resource: resource.identifier, file: resource.href })
    else if (!document && !isWebContent(resource.type))
      findings.add('type-not-read', where, { type: resource.type })
    const isPage =
      path !== null &&
      !document &&
      mediaTypeOf(path) === 'text/html' &&
      present(archive.entries.get(path)).size <= limits.pageBytes &&
      !places.damaged.has(path)
    const kind = kindOf(content, isPage, path === null ? document : null)
    const forStaff = resource.staffOnly || itemKindDefinitions[kind].staffOnly
    const needs = resource.dependencies.map(lineageOfResource).filter(found => found !== null)
    const own = titleOf(content?.title, where, limits, findings)
    return {
      ...blank,
      type: 'item',
      lineage,
      identifier,
      resource: resource.identifier,
      title: title ?? own ?? (path === null ? identifier : fileNameOf(path)),
      kind,
      body: path === null ? null : bodyAt(path, resource, archive, places, limits, content),
      points: content?.points ?? null,
      state: visible && !forStaff ? 'visible' : 'hidden',
      settings: {
        ...(path !== null && !(content && content.kind !== 'file') && { fileName: fileNameOf(path) }),
        ...content?.settings,
        ...(resource.intendedUse && { intendedUse: resource.intendedUse }),
        ...(resource.staffOnly && { audience: 'staff' }),
        ...(needs.length > 0 && { needs }),
      },
    }
  }
  const node = (item: OrganisationItem, depth: number): CourseNode | null => {
    const resource = places.items.get(item)
    if (resource === undefined) return null
    const lineage = lineageOf(courseKey, item.identifier)
    const children = item.children.map(child => node(child, depth + 1)).filter(child => child !== null)
    if (resource) {
      if (resource.staffOnly)
        findings.add('staff-only', `${manifestName}, line ${item.line}`, {
          title: item.title ?? item.identifier,
        })
      return { ...itemOf(lineage, item.identifier, item.title, resource, item.visible), children }
    }
    const title = item.title ?? 'Untitled'
    if (item.reference === null && (depth === 0 || children.length > 0))
      return { type: 'unit', lineage, identifier: item.identifier, title, children }
    return {
      ...blank,
      type: 'item',
      lineage,
      identifier: item.identifier,
      kind: 'heading',
      title,
      state: item.visible ? 'visible' : 'hidden',
      children,
    }
  }
  const nodes = manifest.items.map(item => node(item, 0)).filter(found => found !== null)
  const others: ItemNode[] = []
  for (const resource of manifest.resources.values()) {
    if (places.shown.has(resource.identifier)) continue
    const lineage = lineageOf(courseKey, resource.identifier)
    const path = resource.href === null ? null : places.file(resource.href)
    // A second resource of a file that an item or another resource stands for says nothing new.
    if (path !== null && places.lineage(path) !== lineage && !xmlReader(resource)) continue
    const item = itemOf(lineage, resource.identifier, null, resource, true)
    others.push(item)
    if (!places.used.has(lineage))
      findings.add('never-referenced', path ?? `${manifestName}, line ${resource.line}`, {
        title: item.title,
      })
  }
  for (const path of places.loose)
    others.push({
      ...blank,
      type: 'item',
      lineage: places.looseLineage(path),
      identifier: `file:${path}`,
      kind: mediaTypeOf(path) === 'text/html' ? 'page' : 'file',
      title: fileNameOf(path),
      body: bodyAt(path, null, archive, places, limits, undefined),
      settings: { fileName: fileNameOf(path) },
    })
  const listed = new Set([manifestName, ...places.byHref.keys(), ...places.loose])
  for (const path of archive.entries.keys())
    if (!listed.has(path) && !/\.xsd$|(^|\/)(META-INF|__MACOSX)\/|(^|\/)\.|(^|\/)Thumbs\.db$/i.test(path))
      findings.add('file-unlisted', path)
  return { nodes, others }
}
