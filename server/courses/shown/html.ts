import sanitizeHtml from 'sanitize-html'
import { parseLineageLink } from '../../../core/course/lineage'
import { shallowHtml } from '../../../core/formats/html/shallow'

/** Changes whenever {@link safeHtml} or {@link safeQuestions} may answer otherwise for the same bytes: what was kept is made anew then. */
export const shownVersion = 1
/** Deeper than any page, and few enough for a parser that keeps a list of open elements. */
const deepest = 200

export const bodyAddress = (courseId: string, lineage: string): string =>
  `/api/v1/courses/${courseId}/items/${lineage}/body`

/** Elements that load what they show from an address. */
const loading = ['img', 'video', 'audio', 'iframe', 'embed', 'object', 'source', 'track']
/** Those of them that may show a file of the course itself. */
const showing = ['img', 'video', 'audio', 'source']
const spoken: Record<string, string> = {
  img: 'Picture',
  video: 'Video',
  audio: 'Sound',
  iframe: 'Page',
  embed: 'Content',
  object: 'Content',
}
/** Names inside a page are kept apart from those of the application around it. */
const anchor = (name: string): string => `part-${name}`

type Attributes = Record<string, string>
function shownElsewhere(tagName: string, url: URL, alt: string | undefined): sanitizeHtml.Tag {
  return {
    tagName: 'a',
    attribs: { class: 'outside', href: url.href, target: '_blank', rel: 'noopener noreferrer' },
    text: `${spoken[tagName]} on ${url.host}${alt ? `: ${alt}` : ''} (not loaded; opens outside)`,
  }
}
function safeLoading(tagName: string, attributes: Attributes): sanitizeHtml.Tag {
  const { src, data, poster: _poster, srcset: _srcset, autoplay: _autoplay, ...rest } = attributes
  const address = (src ?? data ?? '').trim()
  const plays = tagName === 'video' || tagName === 'audio'
  const controls: Attributes = plays ? { controls: 'controls' } : {}
  if (parseLineageLink(address) && showing.includes(tagName))
    return { tagName, attribs: { ...rest, src: address, ...controls } }
  if (plays && !address) return { tagName, attribs: { ...rest, ...controls } }
  const url = tagName in spoken ? outside(address) : null
  return url ? shownElsewhere(tagName, url, rest.alt) : { tagName, attribs: rest }
}
function safeLink(tagName: string, attributes: Attributes): sanitizeHtml.Tag {
  const { href = '', id, ...rest } = attributes
  const own = id ? { ...rest, id: anchor(id) } : rest
  if (parseLineageLink(href)) return { tagName, attribs: { ...own, href } }
  if (href.startsWith('#') && href.length > 1)
    return { tagName, attribs: { ...own, href: `#${anchor(href.slice(1))}` } }
  return /^(https?|mailto):/i.test(href)
    ? { tagName, attribs: { ...own, href, target: '_blank', rel: 'noopener noreferrer' } }
    : { tagName, attribs: own }
}
const withOwnId = (tagName: string, attributes: Attributes): sanitizeHtml.Tag => ({
  tagName,
  attribs: attributes.id ? { ...attributes, id: anchor(attributes.id) } : attributes,
})
const rules: sanitizeHtml.IOptions = {
  nonTextTags: ['script', 'style', 'textarea', 'option', 'noscript', 'title'],
  allowedTags: [
    ...sanitizeHtml.defaults.allowedTags,
    'img',
    'del',
    'ins',
    'details',
    'summary',
    'video',
    'audio',
    'source',
  ],
  allowedAttributes: {
    a: ['href', 'title', 'target', 'rel', 'class'],
    img: ['src', 'alt', 'title', 'width', 'height'],
    video: ['src', 'controls', 'width', 'height'],
    audio: ['src', 'controls'],
    source: ['src', 'type'],
    th: ['scope', 'colspan', 'rowspan'],
    td: ['colspan', 'rowspan'],
    ol: ['start', 'type'],
    '*': ['id', 'lang', 'dir'],
  },
  allowedClasses: { a: ['outside'] },
  allowedSchemes: ['http', 'https', 'mailto'],
  // What is loaded is named by its lineage alone: nothing comes from outside.
  allowedSchemesByTag: {
    a: ['http', 'https', 'mailto', 'northtide'],
    ...Object.fromEntries(loading.map(tag => [tag, showing.includes(tag) ? ['northtide'] : []])),
  },
  nestingLimit: deepest,
  transformTags: {
    '*': withOwnId,
    a: safeLink,
    ...Object.fromEntries(loading.map(tag => [tag, safeLoading])),
  },
  exclusiveFilter: frame =>
    ['img', 'source'].includes(frame.tag) && !frame.attribs.src && !frame.attribs.href,
}

/**
 * HTML as it may be shown, whatever course it is read in: an allow list of elements and attributes, no deeper than may be. Nothing
 * is loaded from outside: where something would be, a link says so, and the person may follow it. Links inside the course name a
 * lineage still (`withLinks`). Takes time in proportion to its length.
 */
export const safeHtml = (html: string): string => sanitizeHtml(shallowHtml(html, deepest), rules)

/** What is in a course, by lineage, with its kind. */
type Known = ReadonlyMap<string, string | null>
const leftBehind = '<a class="left-behind" title="What this led to is not in this course.">'
/**
 * The same, read in a course: its links lead to the copies there. Only what `safeHtml` has made may be given: in that, `<` and `>`
 * stand nowhere but around tags.
 */
export const withLinks = (safe: string, courseId: string, known: Known): string =>
  safe.replace(
    /<(a|img|video|audio|source)\b([^<>]*?)(\/?)>/g,
    (tag, name: string, attributes: string, closes: string) => {
      const found = / (?:href|src)="(northtide:[^"]*)"/.exec(attributes)
      const link = found && parseLineageLink(found[1] ?? '')
      if (!found || !link) return tag
      const address = known.has(link.lineage) ? addressIn(courseId, known, name, link) : null
      if (address === null && name === 'a') return leftBehind
      if (address === null && (name === 'img' || name === 'source')) return ''
      const attribute = name === 'a' ? 'href' : 'src'
      const changed = attributes.replace(found[0], () =>
        address === null ? '' : ` ${attribute}="${address}"`,
      )
      return `<${name}${changed}${closes}>`
    },
  )
function addressIn(
  courseId: string,
  known: Known,
  tag: string,
  { lineage, rest }: { lineage: string; rest: string },
): string {
  if (tag !== 'a' || known.get(lineage) === 'file') return bodyAddress(courseId, lineage)
  return `/courses/${courseId}/items/${lineage}${rest.replace(/#(.+)$/, (_, name: string) => `#${anchor(name)}`)}`
}
/** HTML as it may be shown in a course, in one go: for what is short and not kept. */
export const shownHtml = (html: string, courseId: string, known: Known): string =>
  withLinks(safeHtml(html), courseId, known)

/** An address that leads out of the application, or null. */
function outside(address: string): URL | null {
  try {
    const url = new URL(address.startsWith('//') ? `https:${address}` : address)
    return url.protocol === 'http:' || url.protocol === 'https:' ? url : null
  } catch {
    return null
  }
}
