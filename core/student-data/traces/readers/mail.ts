import PostalMime from 'postal-mime'
import { readOnly, type BodyPart, type BodyReader, type Unseen } from './reader'

const addressText = (
  list: readonly { name?: string | undefined; address?: string | undefined }[] = [],
): string => list.map(({ name, address }) => [name, address].filter(Boolean).join(' ')).join(', ')
/** A mail (RFC 5322 with MIME): who wrote it to whom, its texts, and what is attached. It is read and not changed: what it says is letters of people. */
export const mails: BodyReader = {
  words: ['mail', 'mails'],
  isTable: false,
  async open({ bytes }, reading) {
    const mail = await PostalMime.parse(bytes)
    const people = [mail.from ? [mail.from] : [], mail.to, mail.cc, mail.bcc, mail.replyTo].map(list =>
      addressText(list as { name?: string; address?: string }[] | undefined),
    )
    const head = [mail.subject ?? '', ...people].filter(line => line !== '').join('\n')
    const parts: BodyPart[] = [
      readOnly('head', head, 'metadata'),
      readOnly('text', mail.text ?? ''),
      readOnly('page', (mail.html ?? '').replace(/<[^>]*>/g, ' ')),
    ]
    const unseen: Unseen[] = []
    for (const [n, { filename, content }] of mail.attachments.entries()) {
      const name = filename ?? `attachment ${n + 1}`
      const inner = typeof content === 'string' ? new TextEncoder().encode(content) : new Uint8Array(content)
      const opened = await reading.within({ name, bytes: inner }, `${n}/${name}`)
      parts.push(...opened.parts.map(part => ({ ...part, canWrite: false })))
      unseen.push(...opened.unseen)
    }
    return { parts, write: null, unseen }
  },
}
