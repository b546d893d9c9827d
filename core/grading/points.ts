/**
 * Points and weights are kept as whole ten-thousandths (DECIMAL(12,4) in the database): 12.5 points are 125000.
 * This is the one place that turns text into them and back.
 */
export type TenThousandths = number

/** What weights usually make together: 100, in ten-thousandths. */
export const hundredPoints: TenThousandths = 1_000_000
/** `12.5` → 125000; more than four decimals are rounded half up. Null where the text is no number or over eight digits before the point. */
export function parsePoints(text: string): TenThousandths | null {
  const match = /^([+-]?)(\d{1,8})(?:\.(\d*))?$/.exec(text.trim())
  if (!match) return null
  const decimals = (match[3] ?? '').padEnd(5, '0')
  const size = Number(match[2]) * 10_000 + Number(decimals.slice(0, 4)) + (decimals[4]! >= '5' ? 1 : 0)
  return match[1] === '-' ? 0 - size : size
}

/** 125000 → `12.5`, without needless zeros. */
export function pointsText(points: TenThousandths): string {
  const size = Math.abs(points)
  const decimals = String(size % 10_000)
    .padStart(4, '0')
    .replace(/0+$/, '')
  return `${points < 0 ? '-' : ''}${Math.floor(size / 10_000)}${decimals ? `.${decimals}` : ''}`
}
