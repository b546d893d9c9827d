const year = 365 * 24 * 60 * 60

/**
 * Fields of every answer, whatever it is: nothing is taken for what it is not, nothing of ours stands in another site's page, and no
 * address of ours is told to others. Strict-Transport-Security where sign-in needs https (NORTHTIDE_SECURE_COOKIES).
 */
export const headersOfAll = (
  env: Record<string, string | undefined> = process.env,
): Record<string, string> => ({
  'x-content-type-options': 'nosniff',
  'referrer-policy': 'same-origin',
  'cross-origin-opener-policy': 'same-origin',
  'cross-origin-resource-policy': 'same-origin',
  'cross-origin-embedder-policy': 'require-corp',
  'permissions-policy': 'camera=(), microphone=(), geolocation=(), payment=()',
  ...(env.NORTHTIDE_SECURE_COOKIES === 'true' && { 'strict-transport-security': `max-age=${year}` }),
})
/** Of every answer of the API: it is never a page, and no page may hold it. A file sets its own. */
export const policyOfApi = `default-src 'none'; frame-ancestors 'none'`
