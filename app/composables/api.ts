import { ref, shallowRef, type Ref, type ShallowRef } from 'vue'
import { present } from '~~/core/present'
import { problem as problemSchema } from '~~/shared/api/session'

/** The server said no, or could not be reached (status 0). */
export class ApiProblem extends Error {
  override readonly name = 'ApiProblem'
  constructor(
    readonly status: number,
    readonly title: string,
    readonly detail: string,
    readonly errors: { field: string; message: string }[] = [],
  ) {
    super(title)
  }
}
export const asProblem = (error: unknown): ApiProblem =>
  error instanceof ApiProblem
    ? error
    : new ApiProblem(0, 'This page met an error', error instanceof Error ? error.message : String(error))

/** What happens where the session has ended; it answers whether one is signed in again. The application says so once, when it starts. */
let whenSignedOut: () => Promise<boolean> = () => Promise.resolve(false)
export const onSignedOut = (then: () => Promise<boolean>): void => {
  whenSignedOut = then
}

async function problemOf(response: Response): Promise<ApiProblem> {
  const body: unknown = await response.json().catch(() => null)
  const told = problemSchema.safeParse(body).data
  return new ApiProblem(
    response.status,
    told?.title ?? 'The server did not answer as it should',
    told?.detail ??
      (told ? '' : 'What is on this page is kept. Try again; if it happens again, tell the help desk.'),
    told?.errors,
  )
}
async function call<T>(
  method: string,
  path: string,
  body?: unknown,
  headers: Record<string, string> = {},
): Promise<T> {
  const hasBody = body !== undefined
  const isFile = body instanceof Blob
  const asked = fetch(`/api/v1${path}`, {
    method,
    headers: {
      accept: 'application/json',
      ...(hasBody && { 'content-type': isFile ? 'application/octet-stream' : 'application/json' }),
      ...headers,
    },
    body: isFile || !hasBody ? body : JSON.stringify(body),
  })
  const response = await asked.catch(() => {
    throw new ApiProblem(
      0,
      'The server cannot be reached',
      'What is on this page is kept. Check the connection, then try again.',
    )
  })
  if (response.ok) return (await response.json()) as T
  const isEnded = response.status === 401 && path !== '/session'
  if (isEnded && (await whenSignedOut())) return call(method, path, body, headers)
  throw await problemOf(response)
}
export const api = {
  get: <T>(path: string): Promise<T> => call<T>('GET', path),
  /** A file goes as it is, anything else as JSON. */
  post: <T>(path: string, body: unknown): Promise<T> => call<T>('POST', path, body),
  /** With a revision: only if what is there still has it. */
  put: <T>(path: string, body: unknown, revision?: number): Promise<T> =>
    call<T>('PUT', path, body, revision === undefined ? {} : { 'if-match': `"${revision}"` }),
  delete: <T>(path: string): Promise<T> => call<T>('DELETE', path),
}

export interface Loaded<T> {
  data: ShallowRef<T | null>
  problem: ShallowRef<ApiProblem | null>
  loading: Ref<boolean>
  refresh: () => Promise<void>
}
/** Loads something and keeps its state: loading, failed with a way on, or there. A refresh keeps what is shown; only the newest counts. */
export function useLoaded<T>(load: () => Promise<T>): Loaded<T> {
  const data = shallowRef<T | null>(null)
  const problem = shallowRef<ApiProblem | null>(null)
  const loading = ref(false)
  let latest = 0
  async function refresh(): Promise<void> {
    const mine = ++latest
    const isNewest = (): boolean => mine === latest
    loading.value = true
    try {
      const loaded = await load()
      if (!isNewest()) return
      data.value = loaded
      problem.value = null
    } catch (error) {
      if (isNewest()) problem.value = asProblem(error)
    } finally {
      if (isNewest()) loading.value = false
    }
  }
  return { data, problem, loading, refresh }
}

export interface Action<A extends unknown[]> {
  /** Does it, and answers whether it went well. What is asked for while it is being done is not done a second time. */
  run: (...given: A) => Promise<boolean>
  busy: Ref<boolean>
  problem: ShallowRef<ApiProblem | null>
}
/** Something that a person asks for: busy while it is done, and what went wrong with it, if anything did. */
export function useAction<A extends unknown[]>(work: (...given: A) => Promise<unknown>): Action<A> {
  const busy = ref(false)
  const problem = shallowRef<ApiProblem | null>(null)
  async function run(...given: A): Promise<boolean> {
    if (busy.value) return false
    busy.value = true
    problem.value = null
    try {
      await work(...given)
      return true
    } catch (error) {
      problem.value = asProblem(error)
      return false
    } finally {
      busy.value = false
    }
  }
  return { run, busy, problem }
}

export { present }
