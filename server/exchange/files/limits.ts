import { readLimits, type ReadLimits } from '../../../core/formats/limits'

/** The limits of `core/formats/limits.ts`, each of which `NORTHTIDE_LIMIT_<NAME>` replaces (`NORTHTIDE_LIMIT_UNPACKED_BYTES` for `unpackedBytes`). */
export function limitsFromEnvironment(env: Record<string, string | undefined> = process.env): ReadLimits {
  return Object.fromEntries(
    Object.entries(readLimits).map(([name, normal]) => {
      const variable = `NORTHTIDE_LIMIT_${name.replace(/[A-Z]/g, letter => `_${letter}`).toUpperCase()}`
      const value = env[variable]
      if (value === undefined || value === '') return [name, normal]
      if (!/^[1-9]\d{0,14}$/.test(value))
        throw new Error(`${variable} is ${JSON.stringify(value)}; it must be a whole number above 0`)
      return [name, Number(value)]
    }),
  ) as unknown as ReadLimits
}
