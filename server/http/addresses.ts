import { setHeader, type H3Event } from 'h3'
import { z } from 'zod'
import { id, lineage } from '../../shared/api/courses'

export const courseAddress = z.object({ id })
export const planAddress = z.object({ id })
export const runAddress = z.object({ id })
export const habitAddress = z.object({ id })
export const batchAddress = z.object({ id })
export const batchPairAddress = z.object({ id, pair: id })
export const uploadAddress = z.object({ id })
export const requestAddress = z.object({ id })
export const personAddress = z.object({ id })
export const signInAddress = z.object({ id })
export const shareAddress = z.object({ id, share: id })
export const itemAddress = z.object({ id, lineage })
export const sectionAddress = z.object({ id, section: id })
export const editAddress = z.object({ id, edit: id })
export const clearingAddress = z.object({ id, clearing: id })
export const planTextAddress = z.object({ id, lineage })

/** Media type of a workbook (Office Open XML). */
export const workbookType = 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet'
/** Sends a text, or bytes, as a file to keep. */
export function replyWithFile<T extends string | Buffer>(
  event: H3Event,
  name: string,
  mediaType: string,
  content: T,
): T {
  setHeader(event, 'content-type', typeof content === 'string' ? `${mediaType}; charset=utf-8` : mediaType)
  setHeader(event, 'content-disposition', `attachment; filename="${name}"`)
  return content
}
