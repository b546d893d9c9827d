import { describe, expect, it } from 'vitest'
import { readerOf } from '../../core/student-data/traces/readers'
import { drawnPdf } from '../../tests/support/pdf'
import { lookedThroughFile, searchedFor, tracedRoster } from '../../tests/support/traces'
import { readPdf } from './pdf'

const through = async (bytes: Uint8Array) =>
  lookedThroughFile({ bytes, mediaType: 'application/octet-stream' }, searchedFor(tracedRoster()), readPdf)

describe('a PDF', () => {
  it('tells its pages with the notes on them, what it says of itself, and what is attached; none of it can be changed', async () => {
    const bytes = await drawnPdf(
      doc => {
        doc.text('The log of Halvard Ness.')
        doc.addPage().text('Fog until ten.')
        doc.note(100, 100, 30, 30, 'Ask Niamh O’Carrow about it')
        doc.link(100, 200, 50, 20, 'https://port-ellery.example/u/lt-2026-05')
        doc.file(Buffer.from('Kept by N04191.'), { name: 'bay-will.txt' })
      },
      {
        Title: 'Logs of Øystein Brå',
        Author: 'Perpetua Lorne',
        Keywords: 'fog, sebnem.ates@port-ellery.example',
      },
    )
    const { traces, unseen } = await through(bytes)
    expect(unseen).toEqual([])
    expect(traces.map(({ text, place, paragraph, file }) => [text, place, paragraph, file])).toEqual(
      expect.arrayContaining([
        ['Halvard Ness', 'page', 1, null],
        ['Øystein Brå', 'metadata', expect.any(Number), null],
        ['Perpetua Lorne', 'metadata', expect.any(Number), null],
        ['sebnem.ates@port-ellery.example', 'metadata', expect.any(Number), null],
        ['Niamh O’Carrow', 'metadata', expect.any(Number), null],
        ['lt-2026-05', 'metadata', expect.any(Number), null],
        ['bay-will', 'fileName', null, 'bay-will.txt'],
        ['N04191', 'text', 1, 'bay-will.txt'],
      ]),
    )
    expect(traces.every(({ can, proposed }) => can.join() === 'keep' && proposed === null)).toBe(true)
  })
  it('without text is told as not looked into, and so is one that is damaged', async () => {
    const drawn = await drawnPdf(doc => void doc.rect(0, 0, 100, 100).fill('#14263A'))
    expect((await through(drawn)).unseen).toEqual([expect.stringMatching(/no text that can be read/)])
    const broken = Uint8Array.from(Buffer.from('%PDF-1.7\nnothing of it'))
    expect((await through(broken)).unseen).toEqual([expect.stringMatching(/damaged/)])
    expect(readerOf({ bytes: broken, mediaType: '', name: 'a.txt' })).toMatchObject({
      words: ['PDF', 'PDFs'],
    })
  })
  it('is read on while it has pages, and what was not read is told', async () => {
    const long = await drawnPdf(doc => {
      doc.text('1')
      for (let page = 2; page <= 302; page++) doc.addPage().text(String(page))
    })
    expect((await through(long)).unseen).toEqual([': Only its first 300 pages of 302 were read.'])
  })
})
