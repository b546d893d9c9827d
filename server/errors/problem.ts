/** What stood in the way of some work, told later to whoever asked for it: what it was, then what is safe and what to do. */
export interface Problem {
  readonly title: string
  readonly detail: string
}
/** A problem as a column keeps it: its title is the first line. */
export const keptProblem = ({ title, detail }: Problem): string => `${title}\n${detail}`
export function problemOf(kept: string | null): Problem | null {
  if (!kept) return null
  const [title = '', ...rest] = kept.split('\n')
  return { title, detail: rest.join(' ') }
}
