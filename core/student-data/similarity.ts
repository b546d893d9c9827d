import { lineageOf } from '../course/lineage'

type Settings = Readonly<Record<string, unknown>>
const isObject = (value: unknown): value is Settings =>
  typeof value === 'object' && value !== null && !Array.isArray(value)
/** Under which identity a similarity check knows an assignment (`settings.similarity.assignment`); null where none looks at it. */
export function similarityOf(settings: Settings): string | null {
  const { similarity } = settings
  const is = isObject(similarity) ? similarity.assignment : undefined
  return typeof is === 'string' && is !== '' ? is : null
}
/**
 * What is merged into an assignment's settings so that a similarity check takes it for another: nobody hands in to last term's then. The same
 * wherever it is asked for the same place. Null where no check looks at it.
 */
export function freshSimilarity(
  settings: Settings,
  place: string,
  lineage: string,
): { readonly similarity: { readonly assignment: string } } | null {
  if (similarityOf(settings) === null) return null
  return { similarity: { assignment: lineageOf(place, `similarity ${lineage}`) } }
}
