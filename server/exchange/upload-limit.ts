/** Bytes that one file may have; NORTHTIDE_LIMIT_UPLOAD_BYTES. */
export function uploadLimit(env: Record<string, string | undefined> = process.env): number {
  const value = Number(env.NORTHTIDE_LIMIT_UPLOAD_BYTES || 512 * 1024 * 1024)
  if (Number.isSafeInteger(value) && value >= 1) return value
  const given = JSON.stringify(env.NORTHTIDE_LIMIT_UPLOAD_BYTES)
  throw new Error(`NORTHTIDE_LIMIT_UPLOAD_BYTES is ${given}; it must be a whole number above 0`)
}
