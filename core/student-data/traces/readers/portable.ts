import { segment } from '../markup'
import { readOnly, type BodyPart, type BodyReader, type Unseen } from './reader'

/** A PDF: its pages, what it says of itself, its notes and what is attached to it. It is read and not changed. */
export const portable: BodyReader = {
  words: ['PDF', 'PDFs'],
  isTable: false,
  async open({ bytes }, reading) {
    if (!reading.readPdf) throw new Error('nothing here reads a PDF')
    const { pages, about, files, partly } = await reading.readPdf(bytes)
    const unseen: Unseen[] = []
    if (pages.every(text => text.trim() === ''))
      unseen.push({ name: '', why: 'It has no text that can be read: it may be a scan.', size: bytes.length })
    else if (partly !== null) unseen.push({ name: '', why: partly, size: bytes.length })
    const parts: BodyPart[] = pages.map((text, at) => ({
      name: `page ${at + 1}`,
      file: null,
      raw: text,
      segments: [{ ...segment('page', text), paragraph: at + 1 }],
      canWrite: false,
    }))
    parts.push(readOnly('about', about.join('\n'), 'metadata'))
    for (const [n, file] of files.entries()) {
      const opened = await reading.within(file, `${n}/${file.name}`)
      parts.push(...opened.parts.map(part => ({ ...part, canWrite: false })))
      unseen.push(...opened.unseen)
    }
    return { parts, write: null, unseen }
  },
}
