import { setHeader, type H3Event } from 'h3'
import { z } from 'zod'
import { id, lineage } from '../../shared/api/courses'

export const courseAddress = z.object({ id })
export const planAddress = z.object({ id })
export const uploadAddress = z.object({ id })
export const itemAddress = z.object({ id, lineage })

/** Sends a text as a file to keep. */
export function sendFile(event: H3Event, name: string, mediaType: string, content: string): string {
  setHeader(event, 'content-type', `${mediaType}; charset=utf-8`)
  setHeader(event, 'content-disposition', `attachment; filename="${name}"`)
  return content
}
