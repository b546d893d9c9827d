import { furnishings, type Furnishing } from '~~/core/course/furniture'

/** One thing around the units, of the sources or of the shell, and what happens to it. */
export interface FurnitureLine {
  readonly source: Furnishing | null
  readonly shell: Furnishing | null
  readonly happens: 'comes' | 'replaces' | 'stays' | 'left' | 'page-left' | 'goes'
  /** Taken, it takes the place of one of the shell's. */
  readonly replaces: boolean
}
interface Asked {
  sources: readonly (readonly Furnishing[])[]
  shell: readonly Furnishing[]
  carried: ReadonlySet<string>
  choices: Readonly<Record<string, 'take' | 'leave'>>
}
/** What a run of now would do with everything around the units (core/plan/placements.ts), in the order of the sources, then of the shell. */
export function furnitureLines({ sources, shell, carried, choices }: Asked): FurnitureLine[] {
  const furnished = new Set(shell.map(({ part }) => part))
  const seen = new Set<string>()
  const ofSources = sources.flat().flatMap((source): FurnitureLine[] => {
    if (seen.has(source.lineage)) return []
    seen.add(source.lineage)
    const isThere = shell.some(each => each.lineage === source.lineage)
    const replaces = isThere || (furnishings[source.part].isOne && furnished.has(source.part))
    const choice = choices[source.lineage]
    const comes = choice ? choice === 'take' : !furnished.has(source.part)
    const happens = (): FurnitureLine['happens'] => {
      if (source.item !== null && !carried.has(source.item)) return 'page-left'
      if (!comes) return 'left'
      return replaces ? 'replaces' : 'comes'
    }
    return [{ source, shell: null, happens: happens(), replaces }]
  })
  const taken = ofSources.flatMap(({ source, happens }) => (happens === 'replaces' && source ? [source] : []))
  const ofShell = shell.map((each): FurnitureLine => {
    const goes = taken.some(
      source =>
        source.lineage === each.lineage || (source.part === each.part && furnishings[each.part].isOne),
    )
    return { source: null, shell: each, happens: goes ? 'goes' : 'stays', replaces: false }
  })
  return [...ofSources, ...ofShell]
}
