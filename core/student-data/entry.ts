import { z } from 'zod'

/** An identifier as the file has it: of a class, an item, a category or a student. */
export const identifier = z.string().min(1)
/** Points as text: `12.5`. */
export const pointsEntry = z
  .string()
  .regex(/^\d{1,8}(\.\d{1,4})?$/, 'must be a number with at most four decimals, as text')
