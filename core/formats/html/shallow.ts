import { Tokenizer } from 'htmlparser2'

const voids = new Set('area base br col embed hr img input link meta param source track wbr'.split(' '))
const blocks =
  'address article aside blockquote center details div dl fieldset figcaption figure footer form h1 h2 h3 h4 h5 h6 header hr main nav ol p pre section table ul'
/** Elements that end where certain others begin (HTML standard, section 13.1.2.4: optional tags), by those others. */
const endedBy: Record<string, readonly string[]> = {
  ...Object.fromEntries(blocks.split(' ').map(name => [name, ['p']])),
  li: ['li'],
  dt: ['dt', 'dd'],
  dd: ['dt', 'dd'],
  tr: ['tr', 'td', 'th'],
  td: ['td', 'th'],
  th: ['td', 'th'],
  option: ['option'],
  thead: ['tr', 'td', 'th', 'tbody'],
  tbody: ['tr', 'td', 'th', 'thead'],
}

/** Where a name stands last among the last so many of some; further down it is not looked for, since that would grow with the text. */
function lastAmong(names: readonly string[], name: string, most: number): number | null {
  const lowest = Math.max(0, names.length - most)
  for (let at = names.length - 1; at >= lowest; at--) if (names[at] === name) return at
  return null
}

/**
 * HTML in which no element stands deeper than `deepest`: the tags of deeper ones are left out, their text stays. Whoever parses HTML
 * with a list of open elements takes quadratic time over elements that are never closed; this takes linear time, and after it
 * so do they.
 */
export function shallowHtml(html: string, deepest: number): string {
  const open: string[] = []
  let result = ''
  let at = 0
  let name = ''
  let start = 0
  const cut = (from: number, to: number): void => {
    result += html.slice(at, from)
    at = to
  }
  const nothing = (): void => {}
  // `<x/>` closes nothing in HTML: it is an element like another, and what is not known to be empty stays open.
  const opened = (end: number): void => {
    for (let top = open.at(-1); top && endedBy[name]?.includes(top); top = open.at(-1)) open.pop()
    if (open.length >= deepest) cut(start, end + 1)
    if (!voids.has(name)) open.push(name)
  }
  const tokenizer = new Tokenizer(
    { xmlMode: false, decodeEntities: false },
    {
      onopentagname(from, to) {
        name = html.slice(from, to).toLowerCase()
        start = from - 1
      },
      onopentagend: opened,
      onselfclosingtag: opened,
      onclosetag(from, to) {
        const closed = html.slice(from, to).toLowerCase()
        const found = lastAmong(open, closed, deepest)
        const end = html.indexOf('>', to)
        if (found === null || found >= deepest) cut(from - 2, end < 0 ? html.length : end + 1)
        if (found !== null) open.length = found
      },
      onattribdata: nothing,
      onattribend: nothing,
      onattribentity: nothing,
      onattribname: nothing,
      oncdata: nothing,
      oncomment: nothing,
      ondeclaration: nothing,
      onend: nothing,
      onprocessinginstruction: nothing,
      ontext: nothing,
      ontextentity: nothing,
    },
  )
  tokenizer.write(html)
  tokenizer.end()
  return result + html.slice(at)
}
