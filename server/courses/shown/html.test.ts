import { describe, expect, it } from 'vitest'
import { lineageLink } from '../../../core/course/lineage'
import { shownHtml } from './html'

const [page, file, gone] = [
  '11111111-1111-5111-8111-111111111111',
  '22222222-2222-5222-8222-222222222222',
  '33333333-3333-5333-8333-333333333333',
]
const known = new Map<string, string | null>([
  [page, 'page'],
  [file, 'file'],
])
const read = (html: string): string => shownHtml(html, 'C', known)

describe('HTML as it is shown', () => {
  it.each([
    '<script>alert(1)</script>',
    '<img src=x onerror=alert(1)>',
    '<a href="javascript:alert(1)">x</a>',
    '<a href="java&#10;script:alert(1)">x</a>',
    '<svg><script>alert(1)</script></svg>',
    '<iframe src="https://a.example"></iframe>',
    '<p style="background:url(https://a.example/x)">x</p>',
    '<form action="https://a.example"><input name=a></form>',
    '<object data="https://a.example/x"></object>',
    '<link rel=stylesheet href="https://a.example/x.css">',
    '<meta http-equiv=refresh content="0;url=https://a.example">',
    '<a href="data:text/html,x">x</a>',
    '<img src="https://a.example/pixel.gif">',
    '<img src="//a.example/pixel.gif">',
    '<video src="https://a.example/v.mp4" autoplay></video>',
    '<math><mtext><style><img src=x onerror=alert(1)></style></mtext></math>',
    '<noscript><p title="</noscript><img src=x onerror=alert(1)>"></noscript>',
  ])('lets nothing run and nothing load: %s', html => {
    const shown = read(html)
    expect(shown).not.toMatch(
      /<(script|iframe|object|embed|form|input|svg|link|meta|style|video|math|noscript)|\son\w+=|javascript:|data:|style=|<img/i,
    )
  })
  it('leads links to the copies in this course, shows its images, and marks what was left behind', () => {
    expect(read(`<a href="${lineageLink(page)}#part">a</a>`)).toBe(
      `<a href="/courses/C/items/${page}#part-part">a</a>`,
    )
    expect(read(`<img src="${lineageLink(file)}" alt="b">`)).toBe(
      `<img alt="b" src="/api/v1/courses/C/items/${file}/body" />`,
    )
    expect(read(`<a href="${lineageLink(gone)}">c</a>`)).toContain('class="left-behind"')
    expect(read('<a href="#x">x</a><p id="__nuxt">y</p>')).toBe(
      '<a href="#part-x">x</a><p id="part-__nuxt">y</p>',
    )
    expect(read('<img src="https://out.example/p.png" alt="Gauge">')).toBe(
      '<a class="outside" href="https://out.example/p.png" target="_blank" rel="noopener noreferrer">Picture on out.example: Gauge (not loaded; opens outside)</a>',
    )
    expect(read(`<video src="${lineageLink(file)}" autoplay poster="https://a.example/x"></video>`)).toBe(
      `<video src="/api/v1/courses/C/items/${file}/body" controls="controls"></video>`,
    )
    expect(read('<a href="https://out.example/">d</a>')).toBe(
      '<a href="https://out.example/" target="_blank" rel="noopener noreferrer">d</a>',
    )
  })
  it('keeps what a page is made of, and no text of its head', () => {
    expect(
      read(
        '<!DOCTYPE html><html><head><title>T</title></head><body><h2 id="x">H</h2><table><tr><td colspan="2">1</td></tr></table></body></html>',
      ),
    ).toBe('<h2 id="part-x">H</h2><table><tr><td colspan="2">1</td></tr></table>')
  })
})
