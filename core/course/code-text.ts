interface Coded {
  readonly code: string
  readonly section: string | null
}
/** The code of a course, and its section where it has one: `HYD 240-01`; nothing where it has no code. */
export const codeOf = ({ code, section }: Coded): string => (code && section ? `${code}-${section}` : code)
/** A course in a word: by its code, else by its title. */
export const codeText = (course: Coded & { readonly title?: string }): string =>
  codeOf(course) || (course.title ?? 'no code')
/** `HYD 240-01 Tidal Hydrography`; without a code the title alone. */
export const courseText = (course: Coded & { readonly title: string }): string =>
  `${codeOf(course)} ${course.title}`.trim()
