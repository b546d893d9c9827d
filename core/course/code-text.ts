/** A course by its code, and its section where it has one: `HYD 240-01`. */
export const codeText = ({
  code,
  section,
}: {
  readonly code: string
  readonly section: string | null
}): string => (section ? `${code}-${section}` : code)
