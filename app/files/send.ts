import type { ProblemBody } from '~~/shared/api/session'
import { ApiProblem } from '~/composables/api'

/** A file on its way to the server. */
export interface Sending {
  name: string
  sent: number
  size: number
  stop: () => void
  done: Promise<string>
}

/** Sends a file as it is and tells how far it is; `done` gives the address it can be looked at under. */
export function sendFile(file: File, progress: (sent: number) => void): Sending {
  // fetch does not tell how much has been sent.
  const request = new XMLHttpRequest()
  const done = new Promise<string>((resolve, reject) => {
    request.open('POST', `/api/v1/uploads?name=${encodeURIComponent(file.name)}`)
    request.setRequestHeader('content-type', 'application/octet-stream')
    request.upload.onprogress = event => progress(event.loaded)
    request.onload = () => {
      const reply = parsed(request.responseText)
      if (request.status < 300) return resolve((reply as { id: string }).id)
      const problem = reply as ProblemBody | null
      reject(
        new ApiProblem(
          request.status,
          problem?.title ?? 'The server did not answer as it should',
          problem?.detail ??
            'Nothing was kept. Send the file again; if it happens again, tell the help desk.',
          problem?.errors,
        ),
      )
    }
    request.onerror = () =>
      reject(
        new ApiProblem(
          0,
          'The file did not arrive',
          'The connection broke. Nothing was kept; check the connection, then send it again.',
        ),
      )
    request.onabort = () => reject(new ApiProblem(0, 'Stopped', 'Nothing was kept.'))
    request.send(file)
  })
  return { name: file.name, size: file.size, sent: 0, stop: () => request.abort(), done }
}
function parsed(text: string): unknown {
  try {
    return JSON.parse(text)
  } catch {
    return null
  }
}
