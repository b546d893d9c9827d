import { thingParts, type ThingPart } from '../carry/again'
import { writesSource, writesText, type PlaceRow } from '../carry/places/row'
import { isComposed } from '../carry/texts'
import { itemKindDefinitions } from '../course/kinds'
import type { ItemKind } from '../course/model'
import { furnishings, type Furnishing } from '../course/furniture'
import type { OutlineNode } from '../course/outline'
import type { PlannedItem } from '../dates/plan'
import { graceKey } from '../grading/grace'
import type { Filed } from '../grading/periods'
import { gradedAs, rulesKey } from '../grading/plan'
import { arrivalState } from './arrival'
import type { PlanBase } from './base'
import type { CarriedPlan } from './carried'
import type { Arrives, ComposedText, Placement } from './effect'
import { graceOf } from './grades'

const nothing = {
  parent: null,
  dates: null,
  parts: null,
  title: null,
  text: null,
  textFrom: 'source',
  settings: null,
  made: null,
  alone: false,
  arrives: null,
  unitState: null,
  details: null,
} as const

/** What is written of how grades are reckoned: the rules, and each category that comes or is written over. */
export function gradePlacements({ target }: PlanBase, { grades, merged }: CarriedPlan): Placement[] {
  const rules: Placement[] = grades.changesRules
    ? [
        {
          ...nothing,
          action: target.grading ? 'replaced' : 'added',
          entity: 'rules',
          lineage: rulesKey,
          source: rulesKey,
          position: 0,
          from: 0,
          details: grades.rules,
        },
      ]
    : []
  const stood = new Map(target.categories.map(({ lineage }, at) => [lineage, at]))
  const categories = grades.categories.flatMap((line, position): Placement[] => {
    const { lineage, title, weight, within, dropLowest, dropHighest, exempt, source, shell } = line
    const moves = shell !== null && stood.get(lineage) !== position
    if (shell && !line.changes && !moves) return []
    const write = shell && !line.changes ? 'moved' : 'replaced'
    return [
      {
        ...nothing,
        action: shell ? write : 'added',
        entity: 'category',
        lineage,
        source: source?.lineage ?? lineage,
        position,
        from: source ? (merged.from.get(source.lineage) ?? 0) : 0,
        details: {
          title,
          weight,
          within,
          dropLowest,
          dropHighest,
          exempt,
          identifier: (source ?? shell)?.identifier ?? null,
        },
      },
    ]
  })
  return [...rules, ...categories]
}

/** How often students may hand in later without asking, where that changes. */
export function gracePlacements(base: PlanBase): Placement[] {
  const { grace: there } = base.target
  const grace = graceOf(base)
  if (grace === null || JSON.stringify(grace) === JSON.stringify(there)) return []
  const action = there ? 'replaced' : 'added'
  const one = {
    ...nothing,
    entity: 'grace',
    lineage: graceKey,
    source: graceKey,
    position: 0,
    from: 0,
  } as const
  return [{ ...one, action, details: grace }]
}

/** Rubrics and groups that come with what is carried, and furniture of which the shell has none of its own. */
export function aroundPlacements(
  base: PlanBase,
  { sides, merged, carried, rubrics: inShell, redacted }: CarriedPlan,
): Placement[] {
  if (base.inPlace) return []
  const { target, document } = base
  const items = merged.nodes.filter(node => carried.has(node.lineage))
  const rubrics = new Set(items.map(node => node.rubric))
  const groups = new Set(items.map(node => node.group))
  const thereGroups = new Set(target.groups.map(group => group.lineage))
  const furnished = new Set(target.furniture.map(({ part }) => part))
  const furnishes = ({ lineage, part, item }: Furnishing): boolean => {
    if (item !== null && !carried.has(item)) return false
    const choice = document.carry.furniture[lineage]
    return choice ? choice === 'take' : !furnished.has(part)
  }
  const done = new Set<string>()
  const next = {
    rubric: target.rubrics.length,
    group: target.groups.length,
    furnishing: target.furniture.length,
  }
  const thereFurniture = new Set(target.furniture.map(({ lineage }) => lineage))
  const add = (
    entity: 'rubric' | 'group' | 'furnishing',
    lineage: string,
    from: number,
    there?: ReadonlySet<string>,
  ): Placement[] => {
    if (done.has(lineage)) return []
    done.add(lineage)
    const position = next[entity]++
    const action = there?.has(lineage) ? 'replaced' : 'added'
    const title = redacted.get(lineage)?.title ?? null
    return [{ ...nothing, action, entity, lineage, source: lineage, position, from, title }]
  }
  return sides.flatMap((side, from) => [
    ...side.rubrics
      .filter(({ lineage }) => rubrics.has(lineage) && inShell.get(lineage) === lineage)
      .filter(({ lineage }) => !target.rubrics.some(rubric => rubric.lineage === lineage))
      .flatMap(({ lineage }) => add('rubric', lineage, from)),
    ...side.groups
      .filter(({ lineage }) => groups.has(lineage) && !thereGroups.has(lineage))
      .filter(({ lineage }) => (document.carry.groups[lineage] ?? 'group') === 'group')
      .flatMap(({ lineage }) => add('group', lineage, from)),
    ...side.furniture
      .filter(furnishes)
      .flatMap(furnishing => [
        ...replacedBy(furnishing, target.furniture, done),
        ...add('furnishing', furnishing.lineage, from, thereFurniture),
      ]),
  ])
}
/** What of the shell goes where something comes of which a course has one alone. */
function replacedBy(
  { part, lineage }: Furnishing,
  there: readonly Furnishing[],
  done: Set<string>,
): Placement[] {
  const gone = there.filter(
    each =>
      furnishings[part].isOne && each.part === part && each.lineage !== lineage && !done.has(each.lineage),
  )
  for (const each of gone) done.add(each.lineage)
  return gone.map(each => ({
    ...nothing,
    action: 'cleared',
    entity: 'furnishing',
    lineage: each.lineage,
    source: each.lineage,
    position: 0,
    from: 0,
  }))
}

const wholeButPlace = thingParts.filter(part => part !== 'place')
/** Of a unit that takes a source's things the name and the state are its own. */
const actions = {
  adds: 'added',
  both: 'added',
  fills: 'filled',
  replaces: 'replaced',
  again: 'replaced',
  removes: 'cleared',
  unfilled: 'cleared',
} as const
/** When a unit of the shell opens once a source's unit goes into it: as that does, unless it opens on a date of its own. */
function openingOf(row: PlaceRow, dates: Landed['dates']): PlannedItem | null {
  const { type, happens, source, shell } = row
  if (type !== 'unit' || happens !== 'joins' || !source || !shell || shell.opens !== null) return null
  const planned = dates.get(source.lineage)
  return planned && planned.opens !== null ? planned : null
}
/** Where everything lands: its dates, and the grading period it is filed under. */
interface Landed {
  readonly dates: ReadonlyMap<string, PlannedItem>
  readonly periods: ReadonlyMap<string, Filed>
}
/** The dates that a run writes of one row of the ledger of places; null where it writes none. */
export function datesOfRow(row: PlaceRow, dates: Landed['dates']): PlannedItem | null {
  if (!row.source || !writesSource(row)) return openingOf(row, dates)
  const parts = partsWritten(row)
  return parts === null || parts.includes('dates') ? (dates.get(row.source.lineage) ?? null) : null
}
/** What a run writes of one row of the ledger of places; null where nothing. */
export function rowPlacement(
  row: PlaceRow,
  base: PlanBase,
  plan: CarriedPlan,
  { dates, periods }: Landed,
): Placement | null {
  const { happens, source, shell, type: entity, parent, position } = row
  const lineage = row.lineage ?? shell?.lineage
  if (lineage === undefined) return null
  const common = () => ({
    ...nothing,
    entity,
    lineage,
    parent,
    position,
    source: source?.lineage ?? lineage,
    from: 0,
  })
  const action = happens in actions ? actions[happens as keyof typeof actions] : null
  if (action === 'cleared')
    return { ...common(), action, parent: shell?.parent ?? null, position: shell?.position ?? 0 }
  if (action === null || !source) {
    const opening = datesOfRow(row, dates)
    if (opening) return { ...common(), action: 'dated', dates: opening }
    const moves = shell && row.lineage !== null && (shell.parent !== parent || shell.position !== position)
    return moves ? { ...common(), action: 'moved' } : null
  }
  const parts = partsWritten(row)
  const { added, carry } = base.document
  const own = added.made[source.lineage]
  // Written out whole: of thousands of rows, spreading one into another takes as long as all else.
  return {
    action,
    entity,
    lineage,
    source: source.lineage,
    parent,
    position,
    from: plan.merged.from.get(source.lineage) ?? 0,
    parts,
    title: row.carries?.title === source.title && !own ? null : (row.carries?.title ?? null),
    text: row.text && writesText(row) ? row.text : null,
    textFrom: textFrom(row, own !== undefined),
    settings: entity === 'item' ? (carry.settings[source.lineage] ?? null) : null,
    made: own ? { points: own.points, exam: own.exam } : null,
    alone: added.found[source.lineage] !== undefined,
    details: composedText(row, plan),
    dates: datesOfRow(row, dates),
    arrives: entity === 'item' ? arrivesAs(source, row, { base, plan, periods }) : null,
    unitState: entity === 'unit' ? arrivalState(source, base.document) : null,
  }
}
function textFrom({ text, source }: PlaceRow, isMade: boolean): Placement['textFrom'] {
  if (text?.isFrame) return 'none'
  if (text) return 'made'
  if (!isMade) return 'source'
  return source?.body ? 'made' : 'none'
}
/** What the record says of a text that the run makes. */
function composedText(row: PlaceRow, { merged }: CarriedPlan): ComposedText | null {
  if (!row.text || !writesText(row)) return null
  if (!isComposed(row.text) && !row.text.isFrame) return null
  const { heading, further, passages, questions, isFrame } = row.text
  const titles = new Map(merged.nodes.map(node => [node.lineage, node.title]))
  return {
    heading: heading?.title ?? null,
    further: further.flatMap(lineage => titles.get(lineage) ?? []),
    passages: passages && passages.takes.length + passages.both.length,
    questions: questions && questions.takes.length,
    isFrame,
  }
}
function partsWritten(row: PlaceRow): ThingPart[] | null {
  if (row.happens === 'adds' || row.happens === 'both') return null
  if (row.happens === 'again') return row.parts.filter(part => part.takes).map(part => part.part)
  const kept = row.happens === 'fills' ? lostIn(row) : []
  return wholeButPlace.filter(part => !kept.includes(part))
}
/** What an item of one kind loses in a place that holds none of it: a text that is no questions, settings of another kind. */
export function lostIn({ source, shell }: Pick<PlaceRow, 'source' | 'shell'>): ThingPart[] {
  const [kind] = shell?.holds ?? []
  if (!source?.kind || !kind || shell?.holds?.includes(source.kind)) return []
  const shows = (one: ItemKind): string => itemKindDefinitions[one].shows
  return shows(source.kind) === shows(kind) ? ['settings'] : ['text', 'settings']
}
function arrivesAs(
  node: OutlineNode,
  row: PlaceRow,
  { base, plan, periods }: { base: PlanBase; plan: CarriedPlan } & Pick<Landed, 'periods'>,
): Arrives {
  const { document } = base
  const place = row.happens === 'fills' ? row.shell : null
  const fits = !place?.holds || (node.kind !== null && place.holds.includes(node.kind))
  const group = document.carry.groups[node.group ?? ''] ?? 'group'
  const { category, exempt, extra } = gradedAs(node, plan.grades, document.grades)
  return {
    category,
    exempt,
    extra,
    state: arrivalState(node, document),
    kind: fits ? node.kind : (place.holds?.[0] ?? node.kind),
    rubric: node.rubric === null ? null : (plan.rubrics.get(node.rubric) ?? node.rubric),
    group: group === 'group' ? node.group : null,
    gradingPeriod: periods.get(node.lineage)?.period ?? null,
  }
}
