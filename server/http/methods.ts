import document from '../../docs/openapi.json'

/** Addresses of the API with the methods each has: from its description, which is made from the routes. */
const known = Object.entries<object>(document.paths).map(([path, operations]) => ({
  parts: path.split('/'),
  methods: Object.keys(operations).map(method => method.toUpperCase()),
}))
const isParameter = (part: string): boolean => part.startsWith('{')

/** The methods that an address of the API has; none: there is no such address. */
export function methodsOf(path: string): string[] {
  const parts = path.replace(/\/$/, '').split('/')
  const fits = known.filter(
    each =>
      each.parts.length === parts.length &&
      each.parts.every((part, at) => part === parts[at] || (isParameter(part) && parts[at] !== '')),
  )
  // `/courses/guard` is an address of its own, not a course that is called guard.
  const exact = fits.filter(each => each.parts.every((part, at) => part === parts[at]))
  const methods = (exact.length > 0 ? exact : fits).flatMap(each => each.methods)
  return [...new Set(methods.includes('GET') ? [...methods, 'HEAD'] : methods)].sort()
}
