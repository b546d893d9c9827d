import { present } from '../../present'
import type { FindingList } from '../findings'
import type { ReadLimits } from '../limits'
import { FormatRefusal } from '../refusal'
import { oneLine } from '../text'
import { childrenNamed, descend, elementsBelow, textAt, type XmlElement } from '../xml'
import { resolvePath } from './paths'

/** A resource of the manifest. Paths are inside the package, decoded; `href` is its main file. */
export interface Resource {
  readonly identifier: string
  readonly type: string
  readonly href: string | null
  readonly files: readonly string[]
  readonly dependencies: readonly string[]
  /** Identifiers of resources that say the same in a richer form (Common Cartridge 1.3, variants). */
  readonly variants: readonly string[]
  readonly intendedUse: string | null
  /** For staff only, as its LOM says. */
  readonly staffOnly: boolean
  readonly line: number
}

/** An item of the organisation. */
export interface OrganisationItem {
  readonly identifier: string
  readonly title: string | null
  readonly reference: string | null
  readonly visible: boolean
  readonly children: readonly OrganisationItem[]
  readonly line: number
}
export interface Manifest {
  readonly title: string | null
  readonly language: string | null
  readonly items: readonly OrganisationItem[]
  readonly resources: ReadonlyMap<string, Resource>
}

/** Characters of a title that are kept: what the database holds. */
const titleKept = 500

/** A title in one line. Too long a one is cut, and said; one of a length that nobody writes is refused. */
export function titleOf(
  text: string | null | undefined,
  where: string,
  limits: Pick<ReadLimits, 'titleLength'>,
  findings: FindingList,
): string | null {
  if (!text) return null
  if (text.length > limits.titleLength)
    throw new FormatRefusal('title-too-long', where, { length: text.length, most: limits.titleLength })
  const line = oneLine(text)
  if (line.length <= titleKept) return line || null
  findings.add('title-cut', where, { title: line, length: line.length, kept: titleKept })
  return `${[...line.slice(0, titleKept - 1)].join('').replace(/[\uD800-\uDBFF]$/, '')}…`
}

/** The text of a LOM element that may come in several languages: that in the language of the whole, else the first. */
function lomText(element: XmlElement | undefined, language: string | null): string | null {
  const strings = (element?.children ?? []).filter(
    child => child.name === 'string' || child.name === 'langstring',
  )
  const own =
    language === null
      ? undefined
      : strings.find(
          child =>
            (child.attributes.language ?? child.attributes['xml:lang'])?.toLowerCase() ===
            language.toLowerCase(),
        )
  return (own ?? strings[0])?.text.trim() || null
}

function readResources(manifest: XmlElement, where: string, findings: FindingList): Map<string, Resource> {
  const resources = new Map<string, Resource>()
  const section = descend(manifest, 'resources')
  if (!section) return resources
  const folder = (element: XmlElement): string => element.attributes['xml:base'] ?? ''
  const base = `${folder(manifest)}${folder(section)}`
  const remote = new Set<string>()
  for (const element of childrenNamed(section, 'resource')) {
    const at = `${where}, line ${element.line}`
    const identifier = element.attributes.identifier ?? ''
    if (!identifier || resources.has(identifier)) {
      findings.add('resource-identifier', at, { identifier })
      continue
    }
    const path = (href: string | undefined): string | null => {
      const address = href?.trim() ?? ''
      if (address === '') return null
      if (/^https?:\/\//i.test(address)) {
        if (!remote.has(address)) findings.add('file-elsewhere', at, { resource: identifier, address })
        remote.add(address)
        return null
      }
      const resolved = resolvePath(resolvePath('', `${base}${folder(element)}`) ?? '', address)
      // Nothing honest points out of its own package; what does is after something else.
      if (resolved === null || /^[a-z][a-z0-9+.-]*:|^[/\\]/i.test(address))
        throw new FormatRefusal('outside-package', at, { resource: identifier, address })
      return resolved
    }
    const files = childrenNamed(element, 'file')
      .map(file => path(file.attributes.href))
      .filter(file => file !== null)
    const roles = elementsBelow(descend(element, 'metadata') ?? { ...element, children: [] })
      .filter(child => child.name === 'intendedEndUserRole')
      .map(child => textAt(child, 'value') ?? '')
    resources.set(identifier, {
      identifier,
      type: (element.attributes.type ?? '').trim(),
      href: path(element.attributes.href) ?? files[0] ?? null,
      files,
      dependencies: childrenNamed(element, 'dependency').map(child => child.attributes.identifierref ?? ''),
      variants: element.children
        .filter(child => child.name === 'variant')
        .map(child => child.attributes.identifierref ?? ''),
      intendedUse: element.attributes.intendeduse?.trim() || null,
      staffOnly: roles.length > 0 && roles.every(role => /^(instructor|mentor|administrator)$/i.test(role)),
      line: element.line,
    })
  }
  return resources
}

/** Reads the manifest's tree: title, language, items and resources. */
export function readManifest(
  manifest: XmlElement,
  where: string,
  limits: ReadLimits,
  findings: FindingList,
): Manifest {
  const organisations = descend(manifest, 'organizations')
  const all = organisations ? childrenNamed(organisations, 'organization') : []
  const organisation =
    all.find(element => element.attributes.identifier === organisations?.attributes.default) ?? all[0]
  if (all.length > 1)
    findings.add('several-organisations', where, {
      count: all.length,
      used: present(organisation).attributes.identifier ?? '',
    })
  const identifiers = new Set<string>()
  /** The identifier of an item: its own, or, where it has none or shares it with an earlier one, another made from it. */
  const identifierOf = (element: XmlElement, at: string, title: string | null): string => {
    const stated = element.attributes.identifier ?? ''
    let identifier = stated
    for (let again = 2; identifier === '' || identifiers.has(identifier); again++)
      identifier = `${stated}#${again}`
    identifiers.add(identifier)
    if (identifier !== stated)
      findings.add('item-identifier', at, { title: title ?? 'Untitled', identifier: stated })
    return identifier
  }
  const item = (element: XmlElement, depth: number): OrganisationItem => {
    const at = `${where}, line ${element.line}`
    if (depth > limits.nesting) throw new FormatRefusal('items-too-deep', at, { most: limits.nesting })
    const title = titleOf(descend(element, 'title')?.text, at, limits, findings)
    return {
      identifier: identifierOf(element, at, title),
      title,
      reference: element.attributes.identifierref?.trim() || null,
      visible: !/^(false|0)$/i.test(element.attributes.isvisible ?? ''),
      line: element.line,
      children: childrenNamed(element, 'item').map(child => item(child, depth + 1)),
    }
  }
  const top = organisation ? childrenNamed(organisation, 'item').map(element => item(element, 0)) : []
  // The organisation holds one root item, which stands for the course itself (Common Cartridge, rooted hierarchy).
  const root = top.length === 1 && present(top[0]).reference === null ? present(top[0]) : null
  if (organisation && !root) findings.add('no-root-item', where, { items: top.length })
  if (!organisation) findings.add('no-organisation', where)
  const lom = descend(manifest, 'metadata', 'lom')
  const language = textAt(lom, 'general', 'language')
  const organisationTitle =
    organisation && titleOf(descend(organisation, 'title')?.text, where, limits, findings)
  return {
    title:
      titleOf(lomText(descend(lom, 'general', 'title'), language), where, limits, findings) ??
      organisationTitle ??
      root?.title ??
      null,
    language,
    items: root ? root.children : top,
    resources: readResources(manifest, where, findings),
  }
}
