/** Something noticed while reading: an error costs what it is about, a warning may surprise, a note explains. `where`: file, or file and row or line. */
export interface Finding { readonly severity: 'error' | 'warning' | 'note', readonly where: string, readonly message: string }

/** A file that is not what it should be. Nothing of it is used. */
export class FormatRefusal extends Error {
  override readonly name = 'FormatRefusal'
  constructor(readonly where: string, readonly reason: string) { super(`${where}: ${reason}`) }
}
