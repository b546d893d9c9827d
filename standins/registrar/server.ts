// npx tsx standins/registrar/server.ts : publishes the registrar's list of Port Ellery as OneRoster 1.1 CSV over HTTP.
//   STANDIN_REGISTRAR_PORT (3311)   STANDIN_REGISTRAR_TOKEN (estuary)   STANDIN_REGISTRAR_MINUTES (between two events; none: only by hand)
import { createHash } from 'node:crypto'
import { createServer, type Server } from 'node:http'
import { bundleAfter, events, faults, type Fault } from './world'

const escape = (text: string): string => text.replace(/[&<>"]/g, character => `&#${character.charCodeAt(0)};`)

/**
 * A registrar. `GET /oneroster.zip` wants `Authorization: Bearer TOKEN` and knows If-None-Match. `GET /` shows what has happened; `POST /control`
 * with `step` and `fault` makes it happen, for tests and for trying things out.
 */
export function registrar(
  token: string,
  seconds?: number,
): { server: Server; set: (state: { step?: number; fault?: Fault }) => void } {
  const state: { step: number; fault: Fault } = { step: 0, fault: 'none' }
  if (seconds)
    setInterval(() => {
      state.step = Math.min(events.length, state.step + 1)
    }, seconds * 1000).unref()
  const set = (change: { step?: number; fault?: Fault }): void => {
    Object.assign(state, change)
  }
  const server = createServer((request, response) => {
    const path = new URL(request.url ?? '/', 'http://registrar').pathname
    if (path === '/oneroster.zip' && request.method === 'GET') {
      if (state.fault === 'down') return void request.socket.destroy()
      if (request.headers.authorization !== `Bearer ${token}`)
        return void response.writeHead(401, { 'www-authenticate': 'Bearer' }).end()
      const bytes = bundleAfter(state.step, state.fault)
      const mark = `"${createHash('sha256').update(bytes).digest('hex').slice(0, 32)}"`
      if (state.fault !== 'slow' && request.headers['if-none-match'] === mark)
        return void response.writeHead(304).end()
      response.writeHead(200, { 'content-type': 'application/zip', etag: mark })
      if (state.fault !== 'slow') return void response.end(bytes)
      // A byte now and then, for ever.
      const drip = setInterval(() => response.write(bytes.subarray(0, 1)), 500)
      return void response.on('close', () => clearInterval(drip))
    }
    if (path === '/control' && request.method === 'POST') {
      let body = ''
      request
        .on('data', (chunk: Buffer) => {
          body += chunk.toString()
        })
        .on('end', () => {
          const wanted = new URLSearchParams(body)
          const step = Number(wanted.get('step') ?? state.step)
          const fault = (wanted.get('fault') ?? state.fault) as Fault
          if (!Number.isInteger(step) || step < 0 || step > events.length || !faults.includes(fault))
            return response.writeHead(400).end('step or fault is not known')
          set({ step, fault })
          response.writeHead(303, { location: '/' }).end()
        })
      return
    }
    if (path !== '/') return void response.writeHead(404).end()
    response.writeHead(200, { 'content-type': 'text/html; charset=utf-8' })
      .end(`<!doctype html><html lang="en"><title>Registrar of Port Ellery (stand-in)</title><body style="font:16px Georgia,serif;max-width:46em;margin:2em auto">
<h1>Registrar of Port Ellery</h1><p>A stand-in: it publishes the list that Northtide fetches.</p><form method="post" action="/control"><ol>${events.map((event, at) => `<li${at < state.step ? '' : ' style="color:#666"'}>${escape(event.what)} ${at < state.step ? '(has happened)' : `<button name="step" value="${at + 1}">Let it happen</button>`}</li>`).join('')}</ol>
<p>Back to the start: <button name="step" value="0">Nothing has happened</button></p></form><form method="post" action="/control"><p>The list is now: <b>${state.fault === 'none' ? 'sound' : state.fault}</b>. ${faults.map(fault => `<button name="fault" value="${fault}">${fault === 'none' ? 'sound' : fault}</button>`).join(' ')}</p></form></body></html>`)
  })
  return { server, set }
}

if (process.argv[1] === new URL(import.meta.url).pathname) {
  const port = Number(process.env.STANDIN_REGISTRAR_PORT || 3311)
  const minutes = Number(process.env.STANDIN_REGISTRAR_MINUTES || 0)
  registrar(process.env.STANDIN_REGISTRAR_TOKEN || 'estuary', minutes * 60 || undefined).server.listen(
    port,
    '127.0.0.1',
    () => console.error(`registrar at http://127.0.0.1:${port}`),
  )
}
