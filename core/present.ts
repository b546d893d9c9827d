/** Something that is known to be there, where a type cannot say so. @throws Error where it is not. */
export function present<T>(value: T | null | undefined): T {
  if (value === null || value === undefined) throw new Error('this is used before it is there')
  return value
}
