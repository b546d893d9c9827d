import type { Finding } from '../../core/formats/findings'

/** What became of a file that was brought in. */
export interface Outcome {
  courseId?: string
  /** The plan that compares it with the course. */
  planId?: string
  text: string
  findings: Finding[]
}
