type Into = Readonly<Record<string, string | null>>

/**
 * Which unit each thing goes into, without what would put one into itself or into what stands below it: of two such decisions the earlier
 * holds. `parentOf`: where a thing stands of which nothing is decided.
 */
export function soundInto(into: Into, parentOf: (lineage: string) => string | null): Into {
  const sound: Record<string, string | null> = {}
  for (const [lineage, unit] of Object.entries(into)) {
    let at = unit
    while (at !== null && at !== lineage) at = at in sound ? (sound[at] ?? null) : parentOf(at)
    if (at === null) sound[lineage] = unit
  }
  return sound
}
