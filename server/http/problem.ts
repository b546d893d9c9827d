/** An answer that is not the one asked for: told as application/problem+json (RFC 9457). */
export class Problem extends Error {
  override readonly name = 'Problem'
  constructor(
    readonly status: number,
    readonly title: string,
    readonly detail?: string,
    readonly errors?: { field: string; message: string }[],
  ) {
    super(title)
  }
}
export const notFound = (what: string): Problem =>
  new Problem(404, `${what} is not here`, 'It does not exist, or you are not among those who may see it.')
