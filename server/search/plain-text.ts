import { Parser } from 'htmlparser2'
import { shallowHtml } from '../../core/formats/html/shallow'
import { readLimits } from '../../core/formats/limits'
import { elementsBelow, readXml } from '../../core/formats/xml'

/** So much of a text is searched; what comes after it is left out. */
export const searchedAtMost = 200_000
const unread = new Set(['script', 'style', 'template', 'title'])
const deepest = 200

/** Words of one line, without doubled blanks and control characters. */
export const tidy = (text: string): string =>
  text
    .replace(/[\p{Cc}\p{Zs}\p{Zl}\p{Zp}]+/gu, ' ')
    .trim()
    .slice(0, searchedAtMost)

/** What one reads of a page: its text, and what its pictures say. */
export function textOfHtml(html: string): string {
  const parts: string[] = []
  let skipped = 0
  const parser = new Parser({
    onopentag(name, { alt }) {
      if (unread.has(name)) skipped++
      parts.push(' ')
      if (alt) parts.push(alt, ' ')
    },
    ontext(text) {
      if (skipped === 0) parts.push(text)
    },
    onclosetag(name) {
      if (unread.has(name)) skipped--
      parts.push(' ')
    },
  })
  parser.end(shallowHtml(html.slice(0, 8 * searchedAtMost), deepest))
  return tidy(parts.join(''))
}
/** What one reads of a quiz or bank (QTI 1.2): everything that is asked, offered and answered. */
export function textOfQuestions(bytes: Uint8Array): string {
  const texts = elementsBelow(readXml('', bytes, readLimits)).filter(({ name }) => name === 'mattext')
  return tidy(
    texts
      .map(({ text, attributes }) => (/html/i.test(attributes.texttype ?? '') ? textOfHtml(text) : text))
      .join(' '),
  )
}

/** What is searched of a body; null where it holds no text that can be read here. */
export type TextOf = (bytes: Uint8Array, mediaType: string, name: string) => Promise<string | null>
const decoded = (bytes: Uint8Array): string => new TextDecoder().decode(bytes.subarray(0, 4 * searchedAtMost))
/** The text of what a course holds itself: pages and questions, and files of plain text. */
export const ownText: TextOf = (bytes, mediaType) => {
  if (mediaType === 'text/html') return Promise.resolve(textOfHtml(decoded(bytes)))
  if (mediaType === 'application/xml') return Promise.resolve(textOfQuestions(bytes))
  return Promise.resolve(mediaType.startsWith('text/') ? tidy(decoded(bytes)) : null)
}
