import type { Knex } from 'knex'
import sanitizeHtml from 'sanitize-html'
import { parseLineageLink } from '../../core/course/lineage'
import {
  questionsOf,
  rightAnswers,
  type Material,
  type Question,
} from '../../core/formats/cartridge/qti/model'
import { readQuestions } from '../../core/formats/cartridge/qti/read'
import { FormatRefusal } from '../../core/formats/findings'
import { readLimits } from '../../core/formats/limits'
import { escapeText, readXml } from '../../core/formats/xml'
import type { ItemReply } from '../../shared/api/courses'
import { accessToCourse } from './access.queries'
import { loadBody } from './bodies.queries'
import { loadCourses, loadItem, loadOutline } from './courses.queries'
import type { Person } from '../people/people.queries'
import { notFound } from '../http/problem'

/** A course's name as calendars and file names show it. */
export async function findCourse(db: Knex, id: string): Promise<{ name: string; fileName: string }> {
  const course = (await loadCourses(db, [id])).get(id)
  if (!course) throw notFound('This course')
  const name = `${course.code}-${course.section} ${course.title}, ${course.term.name}`
  return {
    name,
    fileName: `${course.code}-${course.section}-${course.term.name}`
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, '-'),
  }
}

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

/** One item of a course, to read. */
export async function readItem(
  db: Knex,
  person: Person,
  courseId: string,
  lineage: string,
): Promise<ItemReply> {
  const item = await loadItem(db, courseId, lineage)
  const nodes = await loadOutline(db, courseId, (await accessToCourse(db, person, courseId)).leaves)
  if (!item || !nodes.some(node => node.lineage === lineage)) throw notFound('This item')
  const items = nodes.filter(node => node.type === 'item')
  const at = items.findIndex(node => node.lineage === lineage)
  const node = items[at]!
  const known = new Map(nodes.map(entry => [entry.lineage, entry.kind as string | null]))
  const bytes = item.bodyHash === null ? null : await loadBody(db, item.bodyHash)
  const isHtml = bytes !== null && item.mediaType === 'text/html'
  const isQuiz =
    bytes !== null && item.mediaType === 'application/xml' && (item.kind === 'quiz' || item.kind === 'bank')
  const clean = (html: string) => readableHtml(html, courseId, known)
  // A page that starts with its own title would show it twice: the item's title stands above it.
  const headless = (html: string) =>
    html.replace(/^\s*<h1[^>]*>([^<]*)<\/h1>/, (heading, text) =>
      text.trim() === sanitizeHtml(item.title, { allowedTags: [] }).trim() ? '' : heading,
    )
  let questions: ItemReply['questions'] = null
  if (isQuiz) {
    try {
      questions = [
        ...questionsOf(readQuestions(item.title, readXml(item.title, bytes, readLimits)).sections),
      ].map(question => shownQuestion(question, clean))
    } catch (error) {
      if (!(error instanceof FormatRefusal)) throw error
    }
  }
  const links = (Array.isArray(item.settings.attachments) ? item.settings.attachments : []).map(
    link => parseLineageLink(String(link))?.lineage,
  )
  const attachments = nodes
    .filter(entry => links.includes(entry.lineage))
    .map(entry => ({
      lineage: entry.lineage,
      title: entry.title,
      url:
        entry.kind === 'file'
          ? bodyAddress(courseId, entry.lineage)
          : `/courses/${courseId}/items/${entry.lineage}`,
    }))
  return {
    lineage,
    title: item.title,
    kind: item.kind,
    state: item.state,
    exam: item.exam,
    points: item.points,
    category: item.category,
    opens: node.opens,
    due: node.due,
    closes: node.closes,
    unit: nodes.find(entry => entry.lineage === node.unit)?.title ?? null,
    html: isHtml ? headless(clean(bytes.toString('utf8'))) : null,
    questions,
    file:
      bytes && !isHtml && !isQuiz
        ? { url: bodyAddress(courseId, lineage), mediaType: item.mediaType!, size: bytes.length }
        : null,
    staffText: typeof item.settings.instructorText === 'string' ? clean(item.settings.instructorText) : null,
    attachments,
    tool: item.kind === 'tool' ? toolOf(item.settings) : null,
    url:
      typeof item.settings.url === 'string' && /^https?:/i.test(item.settings.url) ? item.settings.url : null,
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
export async function readFile(
  db: Knex,
  person: Person,
  courseId: string,
  lineage: string,
): Promise<{ bytes: Buffer; mediaType: string; inline: boolean; name: string }> {
  const item = await loadItem(db, courseId, lineage)
  const { leaves } = await accessToCourse(db, person, courseId)
  const bytes = item?.bodyHash && !leaves.has(item.kind) ? await loadBody(db, item.bodyHash) : null
  if (!item || !bytes) throw notFound('This file')
  const inline = shown.test(item.mediaType ?? '')
  return {
    bytes,
    mediaType: inline ? item.mediaType! : 'application/octet-stream',
    inline,
    name: String(item.settings.fileName ?? item.title),
  }
}
