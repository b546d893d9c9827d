/** Where in a plan somebody was last, in this browser: a path of one of its stages. */
const nameOf = (plan: string): string => `northtide-place-${plan}`

export function keepPlace(plan: string, path: string): void {
  try {
    localStorage.setItem(nameOf(plan), path)
  } catch {
    // The browser keeps nothing: one then goes on at Pair.
  }
}
/** Where one goes on with a plan: where one was, else at Pair. */
export function lastPlace(plan: string): string {
  const pair = `/plans/${plan}/pair`
  try {
    const kept = localStorage.getItem(nameOf(plan))
    return kept?.startsWith(`/plans/${plan}/`) ? kept : pair
  } catch {
    return pair
  }
}
