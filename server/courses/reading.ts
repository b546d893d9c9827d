import type { Knex } from 'knex'
import sanitizeHtml from 'sanitize-html'
import { datesOf } from '../../core/course/dates'
import { itemKindDefinitions } from '../../core/course/kinds'
import { parseLineageLink } from '../../core/course/lineage'
import type { OutlineNode } from '../../core/course/outline'
import {
  questionsOf,
  rightAnswers,
  type Material,
  type Question,
} from '../../core/formats/cartridge/qti/model'
import { readQuestions } from '../../core/formats/cartridge/qti/read'
import { FormatRefusal } from '../../core/formats/refusal'
import { readLimits } from '../../core/formats/limits'
import { escapeText, readXml } from '../../core/formats/xml'
import type { ItemReply } from '../../shared/api/courses'
import { notFound } from '../errors/refusal'
import type { Person } from '../people/people.queries'
import { accessToCourse } from './access'
import { loadBody } from './bodies.queries'
import { loadItem, loadOutline, type ItemWhole } from './content.queries'
import type { CourseInLine } from './courses.queries'

type Named = Pick<CourseInLine, 'code' | 'section' | 'title' | 'term'>
/** A course's name as calendars show it. */
export const courseName = ({ code, section, title, term }: Named): string =>
  `${code}-${section} ${title}, ${term.name}`
/** A course's name as it begins the names of files. */
export const courseFileName = ({ code, section, term }: Named): string =>
  `${code}-${section}-${term.name}`.toLowerCase().replace(/[^a-z0-9]+/g, '-')

export const bodyAddress = (courseId: string, lineage: string): string =>
  `/api/v1/courses/${courseId}/items/${lineage}/body`

/** Elements that load what they show from an address. */
const loading = ['img', 'video', 'audio', 'iframe', 'embed', 'object', 'source', 'track']
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

/**
 * HTML as it may be shown: an allow list of elements and attributes; links inside the course lead to the copies in this
 * course; nothing is loaded from outside: where something would be, a link says so, and the person may follow it.
 */
export function readableHtml(
  html: string,
  courseId: string,
  known: ReadonlyMap<string, string | null>,
): string {
  const load = (tagName: string, attributes: Record<string, string>): sanitizeHtml.Tag => {
    const { src, data, poster: _poster, srcset: _srcset, autoplay: _autoplay, ...rest } = attributes
    const address = (src ?? data ?? '').trim()
    const link = parseLineageLink(address)
    if (link && known.has(link.lineage) && ['img', 'video', 'audio', 'source'].includes(tagName))
      return {
        tagName,
        attribs: {
          ...rest,
          src: bodyAddress(courseId, link.lineage),
          ...(['video', 'audio'].includes(tagName) && { controls: 'controls' }),
        },
      }
    if (['video', 'audio'].includes(tagName) && !address)
      return { tagName, attribs: { ...rest, controls: 'controls' } }
    if (['img', 'iframe', 'embed', 'object', 'video', 'audio'].includes(tagName)) {
      const url = outside(address)
      if (url)
        return {
          tagName: 'a',
          attribs: { class: 'outside', href: url.href, target: '_blank', rel: 'noopener noreferrer' },
          text: `${spoken[tagName]} on ${url.host}${rest.alt ? `: ${rest.alt}` : ''} (not loaded; opens outside)`,
        }
    }
    return { tagName, attribs: rest }
  }
  const named = (tagName: string, attributes: Record<string, string>): sanitizeHtml.Tag => ({
    tagName,
    attribs: attributes.id ? { ...attributes, id: anchor(attributes.id) } : attributes,
  })
  return sanitizeHtml(html, {
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
    allowedClasses: { a: ['left-behind', 'outside'] },
    allowedSchemes: ['http', 'https', 'mailto'],
    allowedSchemesByTag: Object.fromEntries(loading.map(tag => [tag, []])),
    // Deeper than any page, and enough for a parser that calls itself.
    nestingLimit: 200,
    transformTags: {
      '*': named,
      a: (tagName, attributes) => {
        const { href = '', id, ...rest } = attributes
        const own = id ? { ...rest, id: anchor(id) } : rest
        const link = parseLineageLink(href)
        if (link) {
          if (!known.has(link.lineage))
            return {
              tagName,
              attribs: { class: 'left-behind', title: 'What this led to is not in this course.' },
            }
          const target: string =
            known.get(link.lineage) === 'file'
              ? bodyAddress(courseId, link.lineage)
              : `/courses/${courseId}/items/${link.lineage}${link.rest.replace(/#(.+)$/, (_, name: string) => `#${anchor(name)}`)}`
          return { tagName, attribs: { ...own, href: target } }
        }
        if (href.startsWith('#') && href.length > 1)
          return { tagName, attribs: { ...own, href: `#${anchor(href.slice(1))}` } }
        return /^(https?|mailto):/i.test(href)
          ? { tagName, attribs: { ...own, href, target: '_blank', rel: 'noopener noreferrer' } }
          : { tagName, attribs: own }
      },
      ...Object.fromEntries(loading.map(tag => [tag, load])),
    },
    exclusiveFilter: frame =>
      ['img', 'source'].includes(frame.tag) && !frame.attribs.src && !frame.attribs.href,
  })
}

/** An address that leads out of the application, or null. */
function outside(address: string): URL | null {
  try {
    const url = new URL(address.startsWith('//') ? `https:${address}` : address)
    return url.protocol === 'http:' || url.protocol === 'https:' ? url : null
  } catch {
    return null
  }
}

/** A question as it is shown to staff: what is asked, what is offered or accepted, what is right. */
function shownQuestion(
  question: Question,
  clean: (html: string) => string,
): NonNullable<ItemReply['questions']>[number] {
  const html = (texts: readonly Material[]): string =>
    clean(texts.map(text => (text.html ? text.text : escapeText(text.text))).join('\n'))
  const right = rightAnswers(question)
  const isRight = (response: string, value: string): boolean =>
    right?.some(entry => entry.response === response && entry.values.includes(value)) ?? false
  return {
    type: question.type,
    points: question.points,
    prompt: html(question.prompt),
    answers: question.responses.flatMap(response =>
      response.kind === 'choice'
        ? response.choices.map(choice => ({
            html: html(choice.material),
            right: isRight(response.ident, choice.ident),
          }))
        : (right?.find(entry => entry.response === response.ident)?.values ?? []).map(value => ({
            html: clean(escapeText(value)),
            right: true,
          })),
    ),
    feedback: question.feedback.map(entry => html(entry.material)).filter(Boolean),
  }
}

/** A page that starts with its own title would show it twice: the item's title stands above it. */
const withoutOwnTitle = (html: string, title: string): string =>
  html.replace(/^\s*<h1[^>]*>([^<]*)<\/h1>/, (heading, text: string) =>
    text.trim() === sanitizeHtml(title, { allowedTags: [] }).trim() ? '' : heading,
  )
const holdsQuestions = ({ kind, mediaType }: ItemWhole): boolean =>
  mediaType === 'application/xml' && itemKindDefinitions[kind].shows === 'questions'
/** The questions of a quiz or bank; null where there are none, or they cannot be read. */
function questionsIn(
  item: ItemWhole,
  bytes: Buffer | null,
  clean: (html: string) => string,
): ItemReply['questions'] {
  if (!bytes || !holdsQuestions(item)) return null
  try {
    const { sections } = readQuestions(item.title, readXml(item.title, bytes, readLimits))
    return [...questionsOf(sections)].map(question => shownQuestion(question, clean))
  } catch (error) {
    if (error instanceof FormatRefusal) return null
    throw error
  }
}
/** Where something of a course is read, or downloaded where it is a file. */
const addressOf = (courseId: string, { lineage, kind }: Pick<OutlineNode, 'lineage' | 'kind'>): string =>
  kind === 'file' ? bodyAddress(courseId, lineage) : `/courses/${courseId}/items/${lineage}`
function attachmentsOf(courseId: string, item: ItemWhole, nodes: readonly OutlineNode[]) {
  const links: unknown[] = Array.isArray(item.settings.attachments) ? item.settings.attachments : []
  const lineages = new Set(links.map(link => parseLineageLink(String(link))?.lineage))
  return nodes
    .filter(entry => lineages.has(entry.lineage))
    .map(entry => ({ lineage: entry.lineage, title: entry.title, url: addressOf(courseId, entry) }))
}
const textIn = (value: unknown): string | null => (typeof value === 'string' ? value : null)

/** One item of a course, to read. */
export async function readItem(
  db: Knex,
  person: Person,
  courseId: string,
  lineage: string,
): Promise<ItemReply> {
  const item = await loadItem(db, courseId, lineage)
  const nodes = await loadOutline(db, courseId, (await accessToCourse(db, person, courseId)).withheld)
  const items = nodes.filter(node => node.type === 'item')
  const at = items.findIndex(node => node.lineage === lineage)
  const node = items[at]
  if (!item || !node) throw notFound('This item')
  const known = new Map<string, string | null>(nodes.map(entry => [entry.lineage, entry.kind]))
  const clean = (html: string): string => readableHtml(html, courseId, known)
  const bytes = item.bodyHash === null ? null : await loadBody(db, item.bodyHash)
  const isHtml = item.mediaType === 'text/html'
  const staffText = textIn(item.settings.instructorText)
  const url = textIn(item.settings.url)
  return {
    lineage,
    title: item.title,
    kind: item.kind,
    state: item.state,
    exam: item.exam,
    points: item.points,
    category: item.category,
    ...datesOf(node),
    unit: nodes.find(entry => entry.lineage === node.unit)?.title ?? null,
    html: bytes && isHtml ? withoutOwnTitle(clean(bytes.toString('utf8')), item.title) : null,
    questions: questionsIn(item, bytes, clean),
    file:
      bytes && !isHtml && !holdsQuestions(item)
        ? { url: bodyAddress(courseId, lineage), mediaType: item.mediaType ?? '', size: bytes.length }
        : null,
    staffText: staffText === null ? null : clean(staffText),
    attachments: attachmentsOf(courseId, item, nodes),
    tool: item.kind === 'tool' ? toolOf(item.settings) : null,
    url: url !== null && /^https?:/i.test(url) ? url : null,
    settings: item.settings,
    previous: items[at - 1]?.lineage ?? null,
    next: items[at + 1]?.lineage ?? null,
  }
}

/** Where a tool link leads and what it hands over; its platforms' own extensions are kept and not shown. */
function toolOf(settings: Record<string, unknown>): ItemReply['tool'] {
  const launch = settings.secureLaunchUrl ?? settings.launchUrl
  const custom = (Array.isArray(settings.custom) ? settings.custom : []) as {
    name?: unknown
    value?: unknown
  }[]
  return {
    launch: typeof launch === 'string' ? launch : null,
    parameters: custom.map(entry => ({ name: String(entry.name ?? ''), value: String(entry.value ?? '') })),
  }
}

// What a browser may show in place; everything else is a download, so that no file can run as a page of ours.
const shown = /^(image\/(png|jpeg|gif|svg\+xml)|application\/pdf|text\/plain|video\/mp4|audio\/mpeg)$/
/** The bytes of a file item, and how they may be sent. */
export async function readItemFile(
  db: Knex,
  person: Person,
  courseId: string,
  lineage: string,
): Promise<{ bytes: Buffer; mediaType: string; inline: boolean; name: string }> {
  const item = await loadItem(db, courseId, lineage)
  const { withheld } = await accessToCourse(db, person, courseId)
  // Somebody to whom a kind is not given does not get what stands below such an item either.
  const given =
    withheld.size === 0 || (await loadOutline(db, courseId, withheld)).some(node => node.lineage === lineage)
  const bytes = item?.bodyHash && given ? await loadBody(db, item.bodyHash) : null
  if (!item || !bytes) throw notFound('This file')
  const mediaType = item.mediaType ?? ''
  const inline = shown.test(mediaType)
  return {
    bytes,
    mediaType: inline ? mediaType : 'application/octet-stream',
    inline,
    name: String(item.settings.fileName ?? item.title),
  }
}
