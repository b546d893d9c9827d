import type { ProblemBody } from '~~/shared/api/session'

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

async function call<T>(
  method: string,
  path: string,
  body?: unknown,
  headers: Record<string, string> = {},
): Promise<T> {
  let response: Response
  try {
    response = await fetch(`/api/v1${path}`, {
      method,
      headers: {
        accept: 'application/json',
        ...(body !== undefined && { 'content-type': 'application/json' }),
        ...headers,
      },
      body: body === undefined ? undefined : JSON.stringify(body),
    })
  } catch {
    throw new ApiProblem(
      0,
      'The server cannot be reached',
      'What is on this page is kept. Check the connection, then try again.',
    )
  }
  if (response.ok) return (await response.json()) as T
  const problem = (await response.json().catch(() => null)) as ProblemBody | null
  if (response.status === 401 && path !== '/session')
    await navigateTo({ path: '/sign-in', query: { back: useRoute().fullPath } })
  throw new ApiProblem(
    response.status,
    problem?.title ?? 'The server did not answer as it should',
    problem?.detail ?? `It said ${response.status}. Try again in a moment.`,
    problem?.errors,
  )
}

export const api = {
  get: <T>(path: string): Promise<T> => call<T>('GET', path),
  post: <T>(path: string, body: unknown): Promise<T> => call<T>('POST', path, body),
  /** With a revision: only if what is there still has it. */
  put: <T>(path: string, body: unknown, revision?: number): Promise<T> =>
    call<T>('PUT', path, body, revision === undefined ? {} : { 'if-match': `"${revision}"` }),
  delete: <T>(path: string): Promise<T> => call<T>('DELETE', path),
}

/** Loads something and keeps its state: loading, failed with a way on, or there. A refresh keeps what is shown. */
export function useLoaded<T>(load: () => Promise<T>) {
  const data = shallowRef<T | null>(null)
  const problem = shallowRef<ApiProblem | null>(null)
  const loading = ref(false)
  let latest = 0
  async function refresh(): Promise<void> {
    const mine = ++latest
    loading.value = true
    try {
      const loaded = await load()
      if (mine === latest) {
        data.value = loaded
        problem.value = null
      }
    } catch (error) {
      if (mine === latest) problem.value = asProblem(error)
    } finally {
      if (mine === latest) loading.value = false
    }
  }
  return { data, problem, loading, refresh }
}

export const asProblem = (error: unknown): ApiProblem =>
  error instanceof ApiProblem
    ? error
    : new ApiProblem(0, 'This page met an error', error instanceof Error ? error.message : String(error))
