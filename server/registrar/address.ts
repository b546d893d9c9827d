/** Where the registrar publishes, how often it is asked, and how long one answer may take. */
export interface RegistrarAddress {
  url: string
  token: string
  minutes: number
  seconds: number
}
/** From NORTHTIDE_REGISTRAR_URL, _TOKEN, _MINUTES (between fetches) and _SECONDS (for one); null where none is named. */
export function registrarAddress(
  env: Record<string, string | undefined> = process.env,
): RegistrarAddress | null {
  if (!env.NORTHTIDE_REGISTRAR_URL) return null
  return {
    url: env.NORTHTIDE_REGISTRAR_URL,
    token: env.NORTHTIDE_REGISTRAR_TOKEN ?? '',
    minutes: Number(env.NORTHTIDE_REGISTRAR_MINUTES || 30),
    seconds: Number(env.NORTHTIDE_REGISTRAR_SECONDS || 120),
  }
}
