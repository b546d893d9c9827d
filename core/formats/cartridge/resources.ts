import type { ItemKind } from '../../course/model'
import { parsePoints, type TenThousandths } from '../../grading/points'
import type { FindingList } from '../findings'
import type { ReadLimits } from '../limits'
import { FormatRefusal } from '../refusal'
import { descend, elementsBelow, escapeText, readXml, textAt, type XmlElement } from '../xml'
import { xmlText } from '../text'
import { fieldOf, questionsOf } from './qti/model'
import { tellQuestionFaults } from './qti/faults'
import { beyondProfile, isKnownProfile, readQuestions } from './qti/read'

/** What a resource turns out to be. `body`: text that is made from its file; null where the file itself is the body, or there is none. */
export interface ResourceContent {
  kind: ItemKind
  title: string | null
  body: { mediaType: string; text: string } | null
  points: TenThousandths | null
  settings: Record<string, unknown>
}
/** What a reader may ask for. */
export interface ReadContext {
  readonly where: string
  readonly limits: ReadLimits
  readonly findings: FindingList
  /** HTML with the addresses of other parts of the package turned into lineage links. */
  readonly linked: (html: string) => string
  /** The lineage link for one address of the package, or null, which has been told. */
  readonly target: (address: string) => string | null
}
export interface ResourceReader {
  /** Matches the `type` attribute of the manifest's resource. */
  type: RegExp
  kind: ItemKind
  read: (bytes: Uint8Array, context: ReadContext) => ResourceContent
}

const root = (bytes: Uint8Array, { where, limits }: ReadContext, name: string): XmlElement => {
  const element = readXml(where, bytes, limits)
  if (element.name !== name)
    throw new FormatRefusal('starts-otherwise', where, { found: element.name, wanted: name })
  return element
}
/** Text of a topic or assignment as HTML; plain text is escaped into paragraphs. */
function richText(element: XmlElement | undefined, { linked }: ReadContext): string | null {
  if (!element || !element.text.trim()) return null
  if (/^text\/html$/i.test(element.attributes.texttype ?? '')) return linked(element.text)
  return element.text
    .trim()
    .split(/\n\s*\n/)
    .map(paragraph => `<p>${escapeText(paragraph).replace(/&#13;/g, '').replace(/\n/g, '<br>')}</p>`)
    .join('\n')
}
const page = (text: string | null) => (text === null ? null : { mediaType: 'text/html', text })
/** Attached files of a topic or assignment, as lineage links. */
const attachments = (element: XmlElement, context: ReadContext): Record<string, unknown> => {
  const links = (descend(element, 'attachments')?.children ?? [])
    .filter(child => child.name === 'attachment')
    .map(child => context.target(child.attributes.href ?? ''))
    .filter(link => link !== null)
  return links.length > 0 ? { attachments: links } : {}
}

const webLink: ResourceReader = {
  type: /^imswl_xmlv1p\d$/,
  kind: 'weblink',
  read(bytes, context) {
    const element = root(bytes, context, 'webLink')
    const url = descend(element, 'url')
    const address = url?.attributes.href?.trim() ?? ''
    if (!address) context.findings.add('no-address', context.where)
    else if (!/^https?:\/\//i.test(address))
      context.findings.add('address-kept-out', context.where, { address })
    return {
      kind: 'weblink',
      title: textAt(element, 'title'),
      body: null,
      points: null,
      settings: {
        url: address,
        ...(url?.attributes.target && { target: url.attributes.target }),
        ...(url?.attributes.windowFeatures && { windowFeatures: url.attributes.windowFeatures }),
      },
    }
  },
}

/** Namespaces of topics (1EdTech Common Cartridge 1.0 to 1.3; from memory). */
const topicNamespace =
  /^http:\/\/www\.imsglobal\.org\/xsd\/imsccv1p[0-3]\/imsdt_v1p[0-3]$|^http:\/\/www\.imsglobal\.org\/xsd\/imsdt_v1p[0-3]$/
const topic: ResourceReader = {
  type: /^imsdt_xmlv1p\d$/,
  kind: 'discussion',
  read(bytes, context) {
    const element = root(bytes, context, 'topic')
    if (!topicNamespace.test(element.namespace))
      context.findings.add('topic-namespace', context.where, { namespace: element.namespace })
    return {
      kind: 'discussion',
      title: textAt(element, 'title'),
      body: page(richText(descend(element, 'text'), context)),
      points: null,
      settings: attachments(element, context),
    }
  },
}

/** XML with its link addresses in HTML texts changed and every other character as it came. */
function linkedXml(text: string, element: XmlElement, linked: (html: string) => string): string {
  let result = ''
  let at = 0
  for (const part of elementsBelow(element)) {
    if (
      part.name !== 'mattext' ||
      !/^text\/html$/i.test(part.attributes.texttype ?? '') ||
      part.children.length > 0
    )
      continue
    const html = linked(part.text)
    if (html === part.text) continue
    result += text.slice(at, part.from) + escapeText(html)
    at = text.lastIndexOf('</', part.to - 1)
  }
  return result + text.slice(at)
}

/** A QTI 1.2 assessment or question bank is kept whole; its points are the sum of its questions'. */
const questions = (type: RegExp, kind: 'quiz' | 'bank'): ResourceReader => ({
  type,
  kind,
  read(bytes, context) {
    const { where, findings } = context
    const element = root(bytes, context, 'questestinterop')
    const set = readQuestions(where, element)
    const all = [...questionsOf(set.sections)]
    if (all.length === 0) findings.add('no-question', where, { holder: kind })
    const beyond = beyondProfile(element)
    if (beyond.length > 0) findings.add('beyond-profile', where, { elements: beyond.slice(0, 5) })
    const unlike = all.filter(question => question.type === 'other').length
    if (unlike > 0) findings.add('question-unlike', where, { unlike, all: all.length })
    tellQuestionFaults(all, isKnownProfile, where, findings)
    const attempts = fieldOf(set.metadata, 'cc_maxattempts')
    const minutes = fieldOf(set.metadata, 'qmd_timelimit')
    const text = xmlText(where, bytes)
    return {
      kind,
      title: set.title,
      body: {
        mediaType: 'application/xml',
        text: linkedXml(text, element, context.linked).replace(
          /^(<\?xml[^>]*?)\s+encoding\s*=\s*(["'])[^"']*\2/,
          '$1 encoding="UTF-8"',
        ),
      },
      points: kind === 'bank' ? null : all.reduce((sum, question) => sum + question.points, 0),
      settings: {
        questions: all.length,
        ...(attempts && { attempts }),
        ...(minutes && /^\d+$/.test(minutes) && { timeLimitMinutes: Number(minutes) }),
      },
    }
  },
})

/** The assignment extension of Common Cartridge (`assignment_xmlv1p0`; from memory). */
const assignment: ResourceReader = {
  type: /^assignment_xmlv1p\d$/,
  kind: 'assignment',
  read(bytes, context) {
    const element = root(bytes, context, 'assignment')
    const gradable = descend(element, 'gradable')
    const formats =
      descend(element, 'submission_formats')
        ?.children.map(format => format.attributes.type ?? '')
        .filter(Boolean) ?? []
    const instructorText = richText(descend(element, 'instructor_text'), context)
    const stated = gradable?.attributes.points_possible
    const points = gradable?.text.trim() === 'true' ? parsePoints(stated ?? '') : null
    if (gradable?.text.trim() === 'true' && stated !== undefined && points === null)
      context.findings.add('points-unread', context.where, { points: stated })
    return {
      kind: 'assignment',
      title: textAt(element, 'title'),
      body: page(richText(descend(element, 'text'), context)),
      points,
      settings: {
        ...(formats.length > 0 && { formats }),
        ...(instructorText !== null && { instructorText }),
        ...attachments(element, context),
      },
    }
  },
}

/** LTI 1.x links (`cartridge_basiclti_link`; from memory): every parameter is kept as it came. */
const tool: ResourceReader = {
  type: /^imsbasiclti_xmlv1p\d/,
  kind: 'tool',
  read(bytes, context) {
    const element = root(bytes, context, 'cartridge_basiclti_link')
    const property = (child: XmlElement) => ({ name: child.attributes.name ?? '', value: child.text.trim() })
    const properties = (parent: XmlElement) =>
      parent.children.filter(child => child.name === 'property').map(property)
    const group = (parent: XmlElement): Record<string, unknown> => {
      const options = parent.children
        .filter(child => child.name === 'options')
        .map(child => ({ name: child.attributes.name ?? '', ...group(child) }))
      return { properties: properties(parent), ...(options.length > 0 && { options }) }
    }
    const extensions = element.children
      .filter(child => child.name === 'extensions')
      .map(child => ({ platform: child.attributes.platform ?? '', ...group(child) }))
    const custom = element.children.filter(child => child.name === 'custom').flatMap(properties)
    const vendor = Object.fromEntries(
      (descend(element, 'vendor')?.children ?? [])
        .filter(child => child.text.trim())
        .map(child => [child.name, child.text.trim()]),
    )
    const addresses = {
      launchUrl: textAt(element, 'launch_url'),
      secureLaunchUrl: textAt(element, 'secure_launch_url'),
      icon: textAt(element, 'icon'),
      secureIcon: textAt(element, 'secure_icon'),
    }
    if (!addresses.launchUrl && !addresses.secureLaunchUrl)
      context.findings.add('no-launch-address', context.where)
    const description = textAt(element, 'description')
    return {
      kind: 'tool',
      title: textAt(element, 'title'),
      body:
        description === null ? null : { mediaType: 'text/html', text: `<p>${escapeText(description)}</p>` },
      points: null,
      settings: {
        ...Object.fromEntries(Object.entries(addresses).filter(([, value]) => value !== null)),
        ...(custom.length > 0 && { custom }),
        ...(extensions.length > 0 && { extensions }),
        ...(Object.keys(vendor).length > 0 && { vendor }),
      },
    }
  },
}

/** A reader for each type of resource that is a document of its own; a new type is a line here. Everything else is a page or a file. */
export const resourceReaders: readonly ResourceReader[] = [
  webLink,
  topic,
  questions(/^imsqti_xmlv1p2\/imscc_xmlv1p\d\/assessment$/, 'quiz'),
  questions(/^imsqti_xmlv1p2\/imscc_xmlv1p\d\/question-bank$/, 'bank'),
  assignment,
  tool,
]
/** Types whose files are web content: pages and files as they are. */
export const isWebContent = (type: string): boolean =>
  type === 'webcontent' || /^associatedcontent\/imscc_xmlv1p\d\/learning-application-resource$/.test(type)

/** Media types by ending (common practice; the names are those of the IANA registry, from memory). */
const mediaTypes: Record<string, string> = {
  html: 'text/html',
  htm: 'text/html',
  xhtml: 'text/html',
  txt: 'text/plain',
  csv: 'text/csv',
  pdf: 'application/pdf',
  svg: 'image/svg+xml',
  png: 'image/png',
  jpg: 'image/jpeg',
  jpeg: 'image/jpeg',
  gif: 'image/gif',
  webp: 'image/webp',
  docx: 'application/vnd.openxmlformats-officedocument.wordprocessingml.document',
  xlsx: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
  pptx: 'application/vnd.openxmlformats-officedocument.presentationml.presentation',
  mp4: 'video/mp4',
  mp3: 'audio/mpeg',
  vtt: 'text/vtt',
  zip: 'application/zip',
  xml: 'application/xml',
}
export const mediaTypeOf = (path: string): string =>
  mediaTypes[path.slice(path.lastIndexOf('.') + 1).toLowerCase()] ?? 'application/octet-stream'
