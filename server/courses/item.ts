import type { Knex } from 'knex'
import sanitizeHtml from 'sanitize-html'
import { datesOf } from '../../core/course/dates'
import { parseLineageLink } from '../../core/course/lineage'
import type { OutlineNode } from '../../core/course/outline'
import type { ItemReply } from '../../shared/api/courses'
import { inSnapshot } from '../db/transaction'
import { notFound } from '../errors/refusal'
import type { Person } from '../people/people.queries'
import { accessToCourse } from './access'
import { hashOf } from './bodies.queries'
import { standIns } from './carried.queries'
import { loadItem, loadOutline, type ItemWhole } from './content.queries'
import { carrySide } from './known'
import type { CourseInLine } from './courses.queries'
import { contentOf } from './sections.queries'
import { bodySource, formOf, shownBody } from './shown/shown'
import { questionsWithLinks } from './shown/body'
import { bodyAddress, withLinks } from './shown/html'

type Named = Pick<CourseInLine, 'code' | 'section' | 'title' | 'term'>
/** A course's name as calendars show it. */
export const courseName = ({ code, section, title, term }: Named): string =>
  `${code}-${section} ${title}, ${term.name}`
/** A course's name as it begins the names of files. */
export const courseFileName = ({ code, section, term }: Named): string =>
  `${code}-${section}-${term.name}`.toLowerCase().replace(/[^a-z0-9]+/g, '-')

/** A page that starts with its own title would show it twice: the item's title stands above it. */
const withoutOwnTitle = (html: string, title: string): string =>
  html.replace(/^\s*<h1[^>]*>([^<]*)<\/h1>/, (heading, text: string) =>
    text.trim() === sanitizeHtml(title, { allowedTags: [] }).trim() ? '' : heading,
  )
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

/** An item, and what its course holds around it, which is not read again for the next one. */
async function itemInCourse(db: Knex, person: Person, courseId: string, asked: string) {
  const others = await standIns(db, await contentOf(db, courseId))
  const lineage = others.get(asked) ?? asked
  const access = await accessToCourse(db, person, courseId)
  return {
    others,
    lineage,
    access,
    item: await loadItem(db, courseId, lineage),
    side: await carrySide(db, courseId, access.withheld),
  }
}
/** One item of a course, to read. */
export async function readItem(
  db: Knex,
  person: Person,
  courseId: string,
  asked: string,
): Promise<ItemReply> {
  const { others, lineage, item, access, side } = await inSnapshot(db, trx =>
    itemInCourse(trx, person, courseId, asked),
  )
  const { nodes, rubrics, groups } = side
  const items = nodes.filter(node => node.type === 'item')
  const at = items.findIndex(node => node.lineage === lineage)
  const node = items[at]
  if (!item || !node) throw notFound('This item')
  const known = new Map<string, string | null>(nodes.map(entry => [entry.lineage, entry.kind]))
  // A link may still name the old course's thing that another one here stands for.
  for (const [source, stands] of others)
    if (!known.has(source) && known.has(stands)) known.set(source, known.get(stands) ?? null)
  const form = formOf(item)
  const shown =
    form && item.bodyHash !== null
      ? await shownBody(db, bodySource(db, item.bodyHash, item.size), form)
      : null
  const isShown = form === 'questions' || shown !== null
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
    gradingPeriod: item.gradingPeriod,
    ...datesOf(node),
    unit: nodes.find(entry => entry.lineage === node.unit)?.title ?? null,
    html: shown?.form === 'page' ? withoutOwnTitle(withLinks(shown.html, courseId, known), item.title) : null,
    questions:
      shown?.form === 'questions' && shown.questions
        ? questionsWithLinks(shown.questions, courseId, known)
        : null,
    body: item.bodyHash,
    file:
      item.bodyHash !== null && !isShown
        ? { url: bodyAddress(courseId, lineage), mediaType: item.mediaType ?? '', size: item.size }
        : null,
    staffText: staffText === null ? null : await shownText(db, staffText, courseId, known),
    attachments: attachmentsOf(courseId, item, nodes),
    tool: item.kind === 'tool' ? toolOf(item.settings) : null,
    url: url !== null && /^https?:/i.test(url) ? url : null,
    settings: item.settings,
    rubric: rubrics.find(each => each.lineage === node.rubric) ?? null,
    group: groups.find(each => each.lineage === node.group)?.title ?? null,
    release: node.release.map(({ after, needs, least }) => ({
      title:
        nodes.find(each => each.lineage === (others.get(after) ?? after))?.title ??
        'an item that is not here',
      needs,
      least,
    })),
    holds: node.holds,
    fixed: node.fixed,
    may: { fix: access.role === 'office' },
    previous: items[at - 1]?.lineage ?? null,
    next: items[at + 1]?.lineage ?? null,
  }
}

/** A text of an item's settings, made ready to be shown like a page, and kept by its hash like one. */
async function shownText(
  db: Knex,
  text: string,
  courseId: string,
  known: ReadonlyMap<string, string | null>,
): Promise<string | null> {
  const bytes = Buffer.from(text)
  const source = { hash: hashOf(bytes), size: bytes.length, load: () => Promise.resolve(bytes) }
  const made = await shownBody(db, source, 'page')
  return made?.form === 'page' ? withLinks(made.html, courseId, known) : null
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
/** A file of a course, and how it may be sent. */
export interface ItemFile {
  hash: string
  size: number
  mediaType: string
  inline: boolean
  name: string
}
/** The file that an item is. @throws Refusal where it is none, or not given to the person */
export async function readItemFile(
  db: Knex,
  person: Person,
  courseId: string,
  asked: string,
): Promise<ItemFile> {
  const lineage = (await standIns(db, await contentOf(db, courseId))).get(asked) ?? asked
  const item = await loadItem(db, courseId, lineage)
  const { withheld } = await accessToCourse(db, person, courseId)
  // Somebody to whom a kind is not given does not get what stands below such an item either.
  const given =
    withheld.size === 0 || (await loadOutline(db, courseId, withheld)).some(node => node.lineage === lineage)
  if (!item?.bodyHash || !given) throw notFound('This file')
  const mediaType = item.mediaType ?? ''
  const inline = shown.test(mediaType)
  return {
    hash: item.bodyHash,
    size: item.size,
    mediaType: inline ? mediaType : 'application/octet-stream',
    inline,
    name: String(item.settings.fileName ?? item.title),
  }
}
