import type { Body, ItemKind } from '../../course/model'
import { parsePoints, type TenThousandths } from '../../grading/points'
import { utf8 } from '../archive'
import { FormatRefusal } from '../findings'
import { descend, elementsBelow, parseXml, textAt, type XmlElement } from '../xml'

/** What a resource turns out to be. */
export interface ResourceContent {
  kind: ItemKind
  title: string | null
  body: Body | null
  points: TenThousandths | null
  settings: Record<string, unknown>
}
export interface ResourceReader {
  /** Matches the `type` attribute of the manifest's resource. */
  type: RegExp
  kind: ItemKind
  read: (path: string, bytes: Uint8Array) => ResourceContent
}

const mediaTypes: Record<string, string> = {
  html: 'text/html', htm: 'text/html', xhtml: 'text/html', txt: 'text/plain', csv: 'text/csv', pdf: 'application/pdf', svg: 'image/svg+xml', png: 'image/png', jpg: 'image/jpeg', jpeg: 'image/jpeg', gif: 'image/gif',
  docx: 'application/vnd.openxmlformats-officedocument.wordprocessingml.document', xlsx: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet', mp4: 'video/mp4', mp3: 'audio/mpeg', vtt: 'text/vtt',
}
const root = (path: string, bytes: Uint8Array, name: string): XmlElement => {
  const element = parseXml(path, utf8(path, bytes))
  if (element.name !== name) throw new FormatRefusal(path, `starts with <${element.name}>, not <${name}>`)
  return element
}
const html = (text: string | null): Body | null => text === null ? null : { mediaType: 'text/html', bytes: new TextEncoder().encode(text) }
/** The text of a topic or assignment as HTML; plain text is escaped into a paragraph. */
function richText(element: XmlElement | undefined): Body | null {
  if (!element || !element.text.trim()) return null
  if (element.attributes.texttype === 'text/html') return html(element.text)
  return html(`<p>${element.text.trim().replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/\n+/g, '<br>')}</p>`)
}

const webContent: ResourceReader = {
  type: /^webcontent$/,
  kind: 'file',
  read(path, bytes) {
    const name = path.split('/').at(-1)!
    const mediaType = mediaTypes[name.split('.').at(-1)!.toLowerCase()] ?? 'application/octet-stream'
    if (mediaType === 'text/html') utf8(path, bytes)
    return { kind: mediaType === 'text/html' ? 'page' : 'file', title: null, body: { mediaType, bytes }, points: null, settings: { fileName: name } }
  },
}

const webLink: ResourceReader = {
  type: /^imswl_xmlv1p\d$/,
  kind: 'weblink',
  read(path, bytes) {
    const element = root(path, bytes, 'webLink')
    const url = descend(element, 'url')
    return { kind: 'weblink', title: textAt(element, 'title'), body: null, points: null, settings: { url: url?.attributes.href ?? '', ...url?.attributes.target && { target: url.attributes.target } } }
  },
}

const topic: ResourceReader = {
  type: /^imsdt_xmlv1p\d$/,
  kind: 'discussion',
  read(path, bytes) {
    const element = root(path, bytes, 'topic')
    return { kind: 'discussion', title: textAt(element, 'title'), body: richText(descend(element, 'text')), points: null, settings: {} }
  },
}

/** A QTI 1.2 assessment is kept whole; its points are the sum of its items' `cc_weighting`, 1 where one states none (QTI profile of Common Cartridge, from memory). */
const assessment: ResourceReader = {
  type: /^imsqti_xmlv1p2\/imscc_xmlv1p\d\/assessment$/,
  kind: 'quiz',
  read(path, bytes) {
    const element = descend(root(path, bytes, 'questestinterop'), 'assessment')
    if (!element) throw new FormatRefusal(path, 'holds no <assessment>')
    const questions = [...elementsBelow(element)].filter(child => child.name === 'item')
    const fields = (parent: XmlElement): Map<string, string> => new Map([...elementsBelow(parent)].filter(child => child.name === 'qtimetadatafield')
      .map(field => [textAt(field, 'fieldlabel') ?? '', textAt(field, 'fieldentry') ?? '']))
    const points = questions.reduce((sum, question) => sum + (parsePoints(fields(question).get('cc_weighting') ?? '1') ?? 10_000), 0)
    const own = fields({ ...element, children: element.children.filter(child => child.name === 'qtimetadata') })
    const attempts = own.get('cc_maxattempts')
    const minutes = own.get('qmd_timelimit')
    return {
      kind: 'quiz',
      title: element.attributes.title ?? null,
      body: { mediaType: 'application/xml', bytes },
      points,
      settings: { questions: questions.length, ...attempts && { attempts }, ...minutes && { timeLimitMinutes: Number(minutes) } },
    }
  },
}

/** The assignment extension of Common Cartridge (`assignment_xmlv1p0`). */
const assignment: ResourceReader = {
  type: /^assignment_xmlv1p0$/,
  kind: 'assignment',
  read(path, bytes) {
    const element = root(path, bytes, 'assignment')
    const gradable = descend(element, 'gradable')
    const formats = descend(element, 'submission_formats')?.children.map(format => format.attributes.type ?? '').filter(Boolean) ?? []
    return {
      kind: 'assignment',
      title: textAt(element, 'title'),
      body: richText(descend(element, 'text')),
      points: gradable?.text.trim() === 'true' ? parsePoints(gradable.attributes.points_possible ?? '') : null,
      settings: { ...formats.length > 0 && { formats } },
    }
  },
}

/** A reader for each type of resource; a new type is a line here. */
export const resourceReaders: readonly ResourceReader[] = [webContent, webLink, topic, assessment, assignment]
