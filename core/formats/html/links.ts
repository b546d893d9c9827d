import { decodeHTMLAttribute } from 'entities'
import { Tokenizer } from 'htmlparser2'

const linkAttributes = new Set(['href', 'src', 'data', 'poster', 'longdesc', 'cite', 'background'])

/** Where an address stands in a piece of HTML, its entities decoded. */
interface Found {
  start: number
  end: number
  value: string
}

function linksIn(html: string): Found[] {
  const found: Found[] = []
  let name = ''
  let start = -1
  let end = -1
  const nothing = () => {}
  // Entities are left raw here, so that start and end are exact; they are decoded from the whole value.
  const tokenizer = new Tokenizer(
    { xmlMode: false, decodeEntities: false },
    {
      onattribname(from, to) {
        name = html.slice(from, to).toLowerCase()
        start = -1
      },
      onattribdata(from, to) {
        if (start < 0) start = from
        end = to
      },
      onattribentity: nothing,
      onattribend() {
        if (start >= 0 && linkAttributes.has(name))
          found.push({ start, end, value: decodeHTMLAttribute(html.slice(start, end)) })
      },
      oncdata: nothing,
      onclosetag: nothing,
      oncomment: nothing,
      ondeclaration: nothing,
      onend: nothing,
      onopentagend: nothing,
      onopentagname: nothing,
      onprocessinginstruction: nothing,
      onselfclosingtag: nothing,
      ontext: nothing,
      ontextentity: nothing,
    },
  )
  tokenizer.write(html)
  tokenizer.end()
  return found
}

const escaped = (value: string): string =>
  value
    .replace(/&/g, '&amp;')
    .replace(/"/g, '&quot;')
    .replace(/'/g, '&#39;')
    .replace(/</g, '&lt;')
    .replace(/\s/g, encodeURIComponent)

/** Replaces addresses of links in HTML and leaves every other character as it came. `change` returns the new address, or null to leave one. */
export function replaceLinks(html: string, change: (address: string) => string | null): string {
  let result = ''
  let at = 0
  for (const { start, end, value } of linksIn(html)) {
    const next = change(value)
    if (next === null) continue
    result += html.slice(at, start) + escaped(next)
    at = end
  }
  return result + html.slice(at)
}
