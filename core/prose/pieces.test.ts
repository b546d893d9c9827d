import fc from 'fast-check'
import { parse, serialize, type DefaultTreeAdapterTypes } from 'parse5'
import { describe, expect, it } from 'vitest'
import { anyPage } from '../../tests/support/pages'
import { piecesOf, htmlOf, readingOf } from './pieces'

type Node = DefaultTreeAdapterTypes.Node
/** A page as the HTML standard has browsers read it (parse5), but for white space. */
function asRead(html: string): string {
  const page = parse(html)
  const tidy = (node: Node): void => {
    if (!('childNodes' in node)) return
    for (const child of node.childNodes)
      if ('value' in child) child.value = child.value.replace(/\s+/g, ' ').trim()
    node.childNodes = node.childNodes.filter(child => !('value' in child) || child.value !== '')
    node.childNodes.forEach(tidy)
  }
  tidy(page)
  return serialize(page)
}
const reading = (html: string): string[] => piecesOf(html).map(readingOf)

describe('a page in pieces', () => {
  it('is put together again as it was, as parse5 reads both', () => {
    fc.assert(
      fc.property(anyPage, fc.boolean(), (body, isWhole) => {
        const html = isWhole
          ? `<!doctype html><html lang="en"><head><title>x</title></head><body>${body}</body></html>`
          : body
        // A holder in which nothing stands has no piece, and is left out.
        const made = htmlOf(piecesOf(html))
        expect(asRead(made)).toBe(asRead(html.replace(/<div class="q"><\/div>/g, '')))
        expect(htmlOf(piecesOf(made))).toBe(made)
      }),
    )
  })
  it('has a piece for each paragraph, heading, list entry and row, also where end tags are left out', () => {
    const html =
      'Bring:<ul><li>boots<li>a <b>lead</b> line</ul><p>Then<p>go<table><tr><td>1<td>2</table><hr><img src=x>'
    expect(reading(html)).toEqual([
      'Bring:',
      'boots',
      'a lead line',
      'Then',
      'go',
      '1 2',
      '(a line across)',
      '(a picture or a player)',
    ])
  })
  it('keeps two lists two, and one list one', () => {
    expect(htmlOf(piecesOf('<ul><li>a</li></ul><ul><li>b</li></ul>')).match(/<ul>/g)).toHaveLength(2)
    expect(htmlOf(piecesOf('<ul><li>a</li><li>b</li></ul>')).match(/<ul>/g)).toHaveLength(1)
  })
  it('takes anything for a page', () => {
    fc.assert(
      fc.property(
        fc.string().map(text => text.replace(/</g, '')),
        fc.array(fc.constantFrom('<p>', '</p>', '<ul>', '<li>', '</div>', '<', '<!--', 'x')),
        (a, b) => {
          const html = a + b.join('')
          expect(reading(htmlOf(piecesOf(html)))).toEqual(reading(html))
        },
      ),
    )
  })
})
