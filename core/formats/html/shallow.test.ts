import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { shallowHtml } from './shallow'

/** How deep elements stand: an end tag ends the last element of its name, with those in it that were never closed. */
function depthOf(html: string): number {
  const open: string[] = []
  let deepest = 0
  for (const [, close, name = ''] of html.matchAll(/<(\/?)([a-z]+)>/g)) {
    if (!close) deepest = Math.max(deepest, open.push(name))
    else if (open.includes(name)) open.length = open.lastIndexOf(name)
  }
  return deepest
}
const textOf = (html: string): string => html.replace(/<[^>]*>/g, '')

describe('HTML that is not too deep', () => {
  it('is left as it is where it was so already', () => {
    const html =
      '<ul><li>One<br>two<li>Three</ul>\n<p title="a > b">x<p>y <!-- <b> --> <script>"<b>"</script><br/>'
    expect(shallowHtml(html, 20)).toBe(html)
    // Elements that end by themselves are not open: two hundred paragraphs are not two hundred deep.
    const paragraphs = '<p>x'.repeat(200) + '<table>' + '<tr><td>y'.repeat(100) + '</table>'
    expect(shallowHtml(paragraphs, 5)).toBe(paragraphs)
  })
  it('keeps the text of what is deeper, and closes what it keeps', () => {
    expect(shallowHtml('<a><b><i>one</i> two</b> three</a>', 2)).toBe('<a><b>one two</b> three</a>')
    expect(shallowHtml('<x/><x/><x/>y', 2)).toBe('<x/><x/>y')
  })
  it('is never deeper than asked, and keeps all text, whatever comes', () => {
    const tag = fc.constantFrom('<q>', '</q>', '<s>', '</s>', '<div>', '</div>', 'text ')
    fc.assert(
      fc.property(fc.array(tag, { maxLength: 200 }), fc.integer({ min: 1, max: 8 }), (tags, deepest) => {
        const html = tags.join('')
        const shallow = shallowHtml(html, deepest)
        expect(depthOf(shallow)).toBeLessThanOrEqual(deepest)
        expect(textOf(shallow)).toBe(textOf(html))
      }),
    )
  })
})
