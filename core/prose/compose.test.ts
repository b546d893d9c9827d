import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { anyPage } from '../../tests/support/pages'
import { piecesOf, htmlOf, readingOf } from './pieces'
import { headingsOf, joinPages, mergedHtml, passagesOf, underHeading } from './compose'

const page = piecesOf(
  `<html><body><h1>Week 3</h1><p>Read on.</p><h2>Tides</h2><p>Ebb.</p><h3>Springs</h3><ul><li>new moon</li></ul>
   <h2>Waves</h2><p>Swell.</p><h2>Tides</h2><p>Again.</p></body></html>`,
)
const reads = (html: string): string[] => piecesOf(html).map(readingOf)

describe('what stands under a heading', () => {
  it('goes up to the next of its level or above', () => {
    expect(headingsOf(page).map(({ title, nth, level }) => `${level} ${title} ${nth}`)).toEqual([
      '1 Week 3 0',
      '2 Tides 0',
      '3 Springs 0',
      '2 Waves 0',
      '2 Tides 1',
    ])
    const under = (title: string, nth = 0) => underHeading(page, { title, nth })?.map(readingOf)
    expect(under('Tides')).toEqual(['Ebb.', 'Springs', 'new moon'])
    expect(under('Tides', 1)).toEqual(['Again.'])
    expect(under('Springs')).toEqual(['new moon'])
    expect(under('Currents')).toBeUndefined()
  })
  it('stands in what it stood in', () => {
    expect(htmlOf(underHeading(page, { title: 'Springs', nth: 0 }) ?? [])).toBe(
      '<html>\n<body>\n<ul>\n<li>new moon</li>\n</ul>\n</body>\n</html>',
    )
  })
})
it('several texts are one page, each further one under its title, once', () => {
  const html = joinPages(piecesOf('<html><head><title>t</title></head><body><p>a</p></body></html>'), [
    { title: 'Waves & swell', pieces: piecesOf('<html><body><p>b</p></body></html>') },
    { title: 'Ebb', pieces: piecesOf('<h1>Ebb</h1><p>c</p>') },
  ])
  expect(reads(html).slice(1)).toEqual(['a', 'Waves & swell', 'b', 'Ebb', 'c'])
  expect(html.match(/<body>/g)).toHaveLength(1)
})
describe('two texts passage by passage', () => {
  const base = piecesOf('<p>one</p><p>two</p><p>three</p><p>four</p>')
  const source = piecesOf('<p>one!</p><p>two</p><p>three?</p><p>four</p>')
  const shell = piecesOf('<p>one</p><p>two, mine</p><p>three, mine</p><p>four</p><p>five</p>')
  it('says where each was changed since the last run', () => {
    const told = passagesOf(source, shell, base).map(each => [
      each.changed,
      each.source.map(readingOf).join('|'),
      each.shell.map(readingOf).join('|'),
    ])
    expect(told).toEqual([
      ['both', 'one!|two|three?', 'one|two, mine|three, mine'],
      [null, 'four', 'four'],
      ['shell', '', 'five'],
    ])
    expect(
      passagesOf(piecesOf('<p>one!</p><p>two</p>'), piecesOf('<p>one</p><p>two</p>'), base)[0]?.changed,
    ).toBe('source')
  })
  it('keeps both of a passage where one says so, the shell’s first', () => {
    const passages = passagesOf(piecesOf('<p>a</p><p>old</p>'), piecesOf('<p>a</p><p>mine</p>'), null)
    expect(reads(mergedHtml(passages, { takes: [], both: [0] }))).toEqual(['a', 'mine', 'old'])
  })
  it('taken all makes the source’s text, taken none the shell’s', () => {
    fc.assert(
      fc.property(anyPage, anyPage, (one, other) => {
        const [from, there] = [piecesOf(one), piecesOf(other)]
        const passages = passagesOf(from, there, null)
        const all = passages.filter(each => !each.isAlike).map((_, at) => at)
        expect(reads(mergedHtml(passages, { takes: all, both: [] }))).toEqual(from.map(readingOf))
        expect(mergedHtml(passages, { takes: [], both: [] })).toBe(htmlOf(there))
        expect(passages.flatMap(each => each.shell)).toEqual(there)
      }),
    )
  })
})
