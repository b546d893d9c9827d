import type { Knex } from 'knex'
import sanitizeHtml from 'sanitize-html'
import { parseLineageLink } from '../../core/course/lineage'
import { questionsOf } from '../../core/formats/cartridge/questions'
import { FormatRefusal } from '../../core/formats/findings'
import type { ItemReply } from '../../shared/api/courses'
import { loadBody } from '../db/queries/bodies'
import { loadCourses, loadItem, loadOutline } from '../db/queries/courses'
import { notFound } from '../http/problem'

/** A course's name as calendars and file names show it. */
export async function findCourse(db: Knex, id: string): Promise<{ name: string, fileName: string }> {
  const course = (await loadCourses(db, [id])).get(id)
  if (!course) throw notFound('This course')
  const name = `${course.code}-${course.section} ${course.title}, ${course.term.name}`
  return { name, fileName: `${course.code}-${course.section}-${course.term.name}`.toLowerCase().replace(/[^a-z0-9]+/g, '-') }
}

export const bodyAddress = (courseId: string, lineage: string): string => `/api/v1/courses/${courseId}/items/${lineage}/body`

/**
 * HTML as it may be shown: an allow list of elements and attributes; links inside the course lead to the copies in this
 * course; nothing is loaded from outside.
 */
export function readableHtml(html: string, courseId: string, known: ReadonlyMap<string, string | null>): string {
  return sanitizeHtml(html, {
    nonTextTags: ['script', 'style', 'textarea', 'option', 'noscript', 'title'],
    allowedTags: [...sanitizeHtml.defaults.allowedTags, 'img', 'del', 'ins', 'details', 'summary'],
    allowedAttributes: { 'a': ['href', 'title', 'target', 'rel', 'class'], 'img': ['src', 'alt', 'title', 'width', 'height'], 'th': ['scope', 'colspan', 'rowspan'], 'td': ['colspan', 'rowspan'], 'ol': ['start', 'type'], '*': ['id', 'lang', 'dir'] },
    allowedClasses: { a: ['left-behind'] },
    allowedSchemes: ['http', 'https', 'mailto'],
    allowedSchemesByTag: { img: [] },
    transformTags: {
      a: (tagName, attributes) => {
        const { href = '', ...rest } = attributes
        const link = parseLineageLink(href)
        if (link) {
          if (!known.has(link.lineage)) return { tagName, attribs: { class: 'left-behind', title: 'What this led to is not in this course.' } }
          const target: string = known.get(link.lineage) === 'file' ? bodyAddress(courseId, link.lineage) : `/courses/${courseId}/items/${link.lineage}${link.rest}`
          return { tagName, attribs: { ...rest, href: target } }
        }
        return /^(https?|mailto):/i.test(href) ? { tagName, attribs: { ...rest, href, target: '_blank', rel: 'noopener noreferrer' } } : { tagName, attribs: attributes }
      },
      img: (tagName, attributes) => {
        const { src = '', ...rest } = attributes
        const link = parseLineageLink(src)
        const attribs: Record<string, string> = { ...rest }
        if (link && known.has(link.lineage)) attribs.src = bodyAddress(courseId, link.lineage)
        return { tagName, attribs }
      },
    },
    exclusiveFilter: frame => frame.tag === 'img' && !frame.attribs.src,
  })
}

/** One item of a course, to read. */
export async function readItem(db: Knex, courseId: string, lineage: string): Promise<ItemReply> {
  const item = await loadItem(db, courseId, lineage)
  if (!item) throw notFound('This item')
  const nodes = await loadOutline(db, courseId)
  const items = nodes.filter(node => node.type === 'item')
  const at = items.findIndex(node => node.lineage === lineage)
  const node = items[at]!
  const known = new Map(nodes.map(entry => [entry.lineage, entry.kind as string | null]))
  const bytes = item.bodyHash === null ? null : await loadBody(db, item.bodyHash)
  const isHtml = bytes !== null && item.mediaType === 'text/html'
  const isQuiz = bytes !== null && item.mediaType === 'application/xml'
  const clean = (html: string) => readableHtml(html, courseId, known)
  // A page that starts with its own title would show it twice: the item's title stands above it.
  const headless = (html: string) => html.replace(/^\s*<h1[^>]*>([^<]*)<\/h1>/, (heading, text) => text.trim() === sanitizeHtml(item.title, { allowedTags: [] }).trim() ? '' : heading)
  let questions: ItemReply['questions'] = null
  if (isQuiz) {
    try { questions = questionsOf(item.title, bytes.toString('utf8')).map(question => ({ prompt: clean(question.prompt), answers: question.answers.map(clean) })) }
    catch (error) { if (!(error instanceof FormatRefusal)) throw error }
  }
  return {
    lineage, title: item.title, kind: item.kind, state: item.state, exam: item.exam, points: item.points, category: item.category, opens: node.opens, due: node.due, closes: node.closes,
    unit: nodes.find(entry => entry.lineage === node.unit)?.title ?? null,
    html: isHtml ? headless(clean(bytes.toString('utf8'))) : null, questions,
    file: bytes && !isHtml && !isQuiz ? { url: bodyAddress(courseId, lineage), mediaType: item.mediaType!, size: bytes.length } : null,
    url: typeof item.settings.url === 'string' && /^https?:/i.test(item.settings.url) ? item.settings.url : null, settings: item.settings,
    previous: items[at - 1]?.lineage ?? null, next: items[at + 1]?.lineage ?? null,
  }
}

// What a browser may show in place; everything else is a download, so that no file can run as a page of ours.
const shown = /^(image\/(png|jpeg|gif|svg\+xml)|application\/pdf|text\/plain|video\/mp4|audio\/mpeg)$/
/** The bytes of a file item, and how they may be sent. */
export async function readFile(db: Knex, courseId: string, lineage: string): Promise<{ bytes: Buffer, mediaType: string, inline: boolean, name: string }> {
  const item = await loadItem(db, courseId, lineage)
  const bytes = item?.bodyHash ? await loadBody(db, item.bodyHash) : null
  if (!item || !bytes) throw notFound('This file')
  const inline = shown.test(item.mediaType ?? '')
  return { bytes, mediaType: inline ? item.mediaType! : 'application/octet-stream', inline, name: String(item.settings.fileName ?? item.title) }
}
