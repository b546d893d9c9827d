// npx tsx standins/mail/server.ts : takes mail by SMTP and shows it on a page. Nothing leaves this machine.
//   STANDIN_SMTP_PORT (3325)   STANDIN_MAIL_PORT (3326, the page)
import { createServer, type Server } from 'node:http'
import { simpleParser } from 'mailparser'
import { SMTPServer } from 'smtp-server'

export interface Letter {
  to: string
  from: string
  subject: string
  text: string
  at: string
}
const escape = (text: string): string => text.replace(/[&<>"]/g, character => `&#${character.charCodeAt(0)};`)
const most = 500

/** An SMTP server without accounts, the letters that came (the newest first), and a server with a page to read them; `/letters.json` is the same for tests. */
export function postOffice(): { smtp: SMTPServer; page: Server; letters: Letter[] } {
  const letters: Letter[] = []
  const smtp = new SMTPServer({
    authOptional: true,
    disabledCommands: ['STARTTLS'],
    size: 1024 * 1024,
    onData(stream, _session, done) {
      simpleParser(stream).then(
        mail => {
          const to = [mail.to ?? []]
            .flat()
            .map(address => address.text)
            .join(', ')
          letters.unshift({
            to,
            from: mail.from?.text ?? '',
            subject: mail.subject ?? '',
            text: mail.text ?? '',
            at: new Date().toISOString(),
          })
          letters.length = Math.min(letters.length, most)
          done()
        },
        (error: Error) => done(error),
      )
    },
  })
  const page = createServer((request, response) => {
    if (request.url === '/letters.json')
      return void response.writeHead(200, { 'content-type': 'application/json' }).end(JSON.stringify(letters))
    response.writeHead(200, { 'content-type': 'text/html; charset=utf-8' })
      .end(`<!doctype html><html lang="en"><title>Mail of Port Ellery (stand-in)</title><body style="font:16px Georgia,serif;max-width:46em;margin:2em auto"><h1>Mail of Port Ellery</h1>
${letters.length === 0 ? '<p>No mail has come.</p>' : letters.map(letter => `<article style="border-top:1px solid #999;padding:.5em 0"><h2 style="font-size:1.1em">${escape(letter.subject)}</h2><p>To ${escape(letter.to)}, from ${escape(letter.from)}, ${letter.at}</p><pre style="white-space:pre-wrap;font:inherit">${escape(letter.text)}</pre></article>`).join('')}</body></html>`)
  })
  return { smtp, page, letters }
}

if (process.argv[1] === new URL(import.meta.url).pathname) {
  const { smtp, page } = postOffice()
  smtp.listen(Number(process.env.STANDIN_SMTP_PORT || 3325), '127.0.0.1')
  page.listen(Number(process.env.STANDIN_MAIL_PORT || 3326), '127.0.0.1', () =>
    console.error('mail is taken'),
  )
}
