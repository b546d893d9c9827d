import { useIntervalFn } from '@vueuse/core'
import { computed, onMounted, onUnmounted, ref, shallowRef, watch, type Ref } from 'vue'
import { compileTerm } from '~~/core/calendar/term'
import { dateFields, datesOf, type ItemDates } from '~~/core/course/dates'
import type { OutlineNode } from '~~/core/course/outline'
import { settingNames } from '~~/core/course/settings'
import { openingAlone, planDates, summarise, type PlannedItem } from '~~/core/dates/plan'
import { ruleBy, type Rule } from '~~/core/dates/rule'
import type { Parts } from '~~/core/editing/parts'
import { recommendedPlan } from '~~/core/plan/document'
import { dateFindings } from '~~/core/plan/forecast'
import type { CourseReply } from '~~/shared/api/courses'
import type { EditDone, EditsReply } from '~~/shared/api/edits'
import type { CourseLedger } from '~~/shared/api/ledger'
import { api, asProblem, type ApiProblem } from '~/composables/api'
import type { LedgerSource } from '~/stages/date/source'

type Things = Record<string, Parts>
/** An edit that was made here, to be taken back and made again. */
interface Step {
  readonly id: string
  readonly things: Things
}
/** How long changes of the same rows are gathered before they are sent, and how often one looks for those of others: milliseconds. */
const [gather, lookEvery] = [300, 6000]
const asWas: Rule = ruleBy('unchanged')

const withParts = (node: OutlineNode, parts: Parts): OutlineNode => {
  const { title, opens, due, closes, points, category, period, state } = parts
  return {
    ...node,
    ...(title !== undefined && { title }),
    ...(opens !== undefined && { opens }),
    ...(due !== undefined && { due }),
    ...(closes !== undefined && { closes }),
    ...(points !== undefined && { points }),
    ...(category !== undefined && { category }),
    ...(period !== undefined && { gradingPeriod: period }),
    ...(state !== undefined && { state }),
  }
}
const differ = (one: Readonly<ItemDates>, other: Readonly<ItemDates>): boolean =>
  dateFields.some(field => one[field] !== other[field])

/**
 * A shell as it stands, as its ledger shows it: what a run wrote stands in the place of the old dates, what is there now in that of the new.
 * What is changed is shown at once and sent a moment later; each change can be taken back.
 */
export function useShellLedger(course: Ref<CourseReply | null>, refreshCourse: () => Promise<void>) {
  const known = shallowRef<CourseLedger | null>(null)
  const edits = shallowRef<EditsReply['edits']>([])
  const problem = shallowRef<ApiProblem | null>(null)
  const saving = ref(false)
  /** What the last taking back left, since it was changed after. */
  const overtaken = ref(0)
  const id = computed(() => course.value?.course.id ?? '')
  const path = computed(() => `/courses/${id.value}`)

  async function fetchKnown(): Promise<void> {
    if (!id.value) return
    problem.value = null
    try {
      const [ledger, { edits: found }] = await Promise.all([
        api.get<CourseLedger>(`${path.value}/ledger`),
        api.get<EditsReply>(`${path.value}/edits`),
      ])
      known.value = ledger
      edits.value = found
    } catch (error) {
      problem.value = asProblem(error)
    }
  }
  watch(id, () => void fetchKnown(), { immediate: true })
  async function refetch(): Promise<void> {
    await refreshCourse()
    await fetchKnown()
  }

  const nodes = computed(() => course.value?.nodes ?? [])
  const term = computed(() => (course.value ? compileTerm(course.value.calendar) : null))
  /** Whether it is known how a run left it: without one, and of a section, there is nothing to compare with. */
  const isSinceRun = computed(() => Object.keys(known.value?.asRun ?? {}).length > 0)
  /** Twice the same term: as a run left it, and as it is now. */
  const named = computed(() => {
    const { value: here } = term
    if (!here || !isSinceRun.value) return here && { source: here, target: here }
    return { source: { ...here, name: 'As run' }, target: { ...here, name: 'Now' } }
  })
  const meetings = computed(() => course.value?.course.meetings ?? [])
  const asRun = computed(() => known.value?.asRun ?? {})
  const wroteOf = (node: OutlineNode): Readonly<ItemDates> => asRun.value[node.lineage] ?? datesOf(node)
  /** What the ledger compares with: as a run wrote it. */
  const before = computed(() => nodes.value.map(node => ({ ...node, ...wroteOf(node) })))
  const itemRules = computed(() =>
    Object.fromEntries(
      nodes.value.flatMap(node =>
        differ(node, wroteOf(node)) ? [[node.lineage, ruleBy('set', datesOf(node))] as const] : [],
      ),
    ),
  )
  const ledger = computed(() => {
    const [here, zone] = [term.value, known.value?.zone]
    if (!here || !zone || !course.value) return null
    const dated = before.value.map(({ lineage, type, kind, unit, opens, due, closes }) => ({
      id: lineage,
      kind: kind ?? '',
      unit: type === 'unit' ? lineage : unit,
      opens,
      due,
      closes,
    }))
    const placed = (rules: LedgerSource['itemRules'], of: typeof dated): readonly PlannedItem[] =>
      planDates({
        source: here,
        target: here,
        sourceMeetings: meetings.value,
        targetMeetings: meetings.value,
        zone,
        rules: { rule: asWas, kindRules: {}, unitRules: {}, itemRules: rules },
        items: of,
      }).items
    const asWritten = new Map(placed({}, dated).map(item => [item.id, item]))
    // Only what is another date now was changed: setting an item by hand would count all three.
    const items = placed(itemRules.value, dated).map(item => {
      const was = asWritten.get(item.id)
      if (!was || !Object.hasOwn(itemRules.value, item.id)) return item
      const crossed = Object.fromEntries(
        dateFields.map(field => [field, (was[field] === item[field] ? was : item).crossed[field]]),
      ) as PlannedItem['crossed']
      return { ...item, crossed }
    })
    const units = new Set(nodes.value.flatMap(({ type, lineage }) => (type === 'unit' ? [lineage] : [])))
    const planned = items.map(item => (units.has(item.id) ? openingAlone(item) : item))
    const target = {
      ...emptySide,
      term: here,
      meetings: meetings.value,
      windows: course.value.course.windows,
    }
    const findings = dateFindings({ document: recommendedPlan(), target }, { nodes: nodes.value }, planned)
    return { items: planned, summary: summarise(planned), findings }
  })
  const planned = computed(() => new Map(ledger.value?.items.map(item => [item.id, item]) ?? []))

  const stateOf = computed(() => new Map(nodes.value.map(({ lineage, state }) => [lineage, state])))

  let pending: Things = {}
  let timer: ReturnType<typeof setTimeout> | undefined
  let sending: Promise<void> = Promise.resolve()
  const done = shallowRef<readonly Step[]>([])
  const undone = shallowRef<readonly Step[]>([])

  function show(things: Things): void {
    if (!course.value || !known.value) return
    const changed = (node: OutlineNode): OutlineNode => {
      const parts = things[node.lineage]
      return parts ? withParts(node, parts) : node
    }
    course.value = { ...course.value, nodes: course.value.nodes.map(changed) }
    const settings = { ...known.value.settings }
    for (const [lineage, parts] of Object.entries(things))
      for (const name of settingNames)
        if (name in parts) {
          const { [name]: _, ...others } = settings[lineage] ?? {}
          const value = parts[name]
          settings[lineage] = typeof value === 'string' ? { ...others, [name]: value } : others
        }
    known.value = { ...known.value, settings }
  }
  /** Changes parts of units and items: shown at once, sent a moment later. */
  function change(things: Things): void {
    if (Object.keys(things).length === 0) return
    problem.value = null
    overtaken.value = 0
    show(things)
    // Of the same rows as before it goes with that; of others what waits is sent first, as an edit of its own.
    if (Object.keys(pending).join() !== Object.keys(things).join()) void flush()
    for (const [lineage, parts] of Object.entries(things))
      pending[lineage] = { ...pending[lineage], ...parts }
    saving.value = true
    clearTimeout(timer)
    timer = setTimeout(() => void flush(), gather)
  }
  function flush(): Promise<void> {
    clearTimeout(timer)
    const things = pending
    pending = {}
    if (Object.keys(things).length > 0) sending = sending.then(() => send(things))
    return sending
  }
  async function send(things: Things): Promise<void> {
    try {
      const { id: edit } = await api.post<EditDone>(`${path.value}/edits`, { does: 'change', things })
      if (edit !== null) remember({ id: edit, things })
      undone.value = []
      // What goes takes other things along, and what comes back is not here yet.
      const here = new Set(nodes.value.map(({ lineage }) => lineage))
      const isStructure = Object.entries(things).some(
        ([lineage, { state }]) => state === 'deleted' || !here.has(lineage),
      )
      await (isStructure ? refetch() : look())
    } catch (error) {
      await refetch()
      problem.value = asProblem(error)
    }
    saving.value = Object.keys(pending).length > 0
  }
  /** What followed at once in the same row is the same edit. */
  function remember(step: Step): void {
    const last = done.value.at(-1)
    if (last?.id !== step.id) {
      done.value = [...done.value, step]
      return
    }
    const things = Object.fromEntries(
      Object.keys(step.things).map(key => [key, { ...last.things[key], ...step.things[key] }]),
    )
    done.value = [...done.value.slice(0, -1), { ...step, things }]
  }
  /** The edits as they are by now; where others made some, all is fetched again. */
  async function look(): Promise<void> {
    const { edits: found } = await api.get<EditsReply>(`${path.value}/edits`)
    const ours = new Set(done.value.map(({ id }) => id))
    const before = new Set(edits.value.map(({ id }) => id))
    const isByOthers =
      found.some(({ id }) => !before.has(id) && !ours.has(id)) ||
      [...before].some(id => found.length < 50 && !found.some(each => each.id === id))
    edits.value = found
    if (isByOthers && Object.keys(pending).length === 0) await refetch()
  }
  const looking = useIntervalFn(() => {
    if (!document.hidden && !saving.value) void look().catch(() => {})
  }, lookEvery)
  onMounted(() => looking.resume())
  onUnmounted(() => void flush())

  /** Takes an edit back, whichever it is. */
  async function takeBack(edit: string): Promise<boolean> {
    await flush()
    problem.value = null
    try {
      const reply = await api.delete<EditsReply>(`${path.value}/edits/${edit}`)
      overtaken.value = reply.overtaken
      done.value = done.value.filter(({ id }) => id !== edit)
      await refetch()
      return true
    } catch (error) {
      problem.value = asProblem(error)
      return false
    }
  }
  async function undo(): Promise<void> {
    await flush()
    const last = done.value.at(-1)
    if (last && (await takeBack(last.id))) undone.value = [...undone.value, last]
  }
  async function redo(): Promise<void> {
    const next = undone.value.at(-1)
    if (!next) return
    const rest = undone.value.slice(0, -1)
    show(next.things)
    saving.value = true
    await send(next.things)
    undone.value = rest
  }

  function holdAll(dates: ReadonlyMap<string, ItemDates | null>): void {
    const byKey = new Map(nodes.value.map(node => [node.lineage, node]))
    const things: Things = {}
    for (const [lineage, wanted] of dates) {
      const node = byKey.get(lineage)
      if (!node) continue
      const next = wanted ?? wroteOf(node)
      const fields = node.type === 'unit' ? (['opens'] as const) : dateFields
      const changed = fields.filter(field => next[field] !== node[field])
      if (changed.length > 0) things[lineage] = Object.fromEntries(changed.map(field => [field, next[field]]))
    }
    change(things)
  }
  const source: LedgerSource = {
    get terms() {
      return named.value
    },
    get ledger() {
      return ledger.value
    },
    get nodes() {
      return before.value
    },
    get planned() {
      return planned.value
    },
    filed: new Map(),
    get itemRules() {
      return itemRules.value as LedgerSource['itemRules']
    },
    shellNodes: [],
    get meetings() {
      return meetings.value
    },
    get openFrom() {
      return course.value?.course.windows.openFrom ?? null
    },
    get carried() {
      return nodes.value.length
    },
    laidOver: null,
    how: ({ findings, held, lineage }) => {
      const [found] = findings
      const state = stateOf.value.get(lineage)
      const told = [found ? `look: ${found.short}` : held && 'changed here', state !== 'visible' && state]
      return told.filter(Boolean).join(', ')
    },
    get words() {
      return {
        was: isSinceRun.value ? 'As run' : 'Week',
        hold: null,
        letGo: 'As the run wrote it',
        look: 'to look at',
      }
    },
    holdAll,
    fileUnder: (lineages, period) => change(Object.fromEntries(lineages.map(key => [key, { period }]))),
  }
  return {
    source,
    known,
    edits,
    problem,
    saving,
    overtaken,
    isSinceRun,
    fetchKnown,
    change,
    undo,
    redo,
    takeBack,
  }
}
const emptySide = {
  nodes: [],
  categories: [],
  grading: null,
  grace: null,
  rubrics: [],
  groups: [],
  furniture: [],
}
