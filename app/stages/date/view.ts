import { computed, type Ref } from 'vue'
import { useAddressed } from '~/composables/address'
import { useLedgerSource, type LedgerSource } from './source'
import {
  asksPeriod,
  isRow,
  isUnit,
  ledgerItem,
  ledgerRows,
  tellingField,
  unitTitles,
  type LedgerItem,
  type LedgerRow,
} from './ledger'

/** By what the ledger can be ordered: the course's own order, with a head for each unit, or a column. */
export const ledgerOrders = ['course', 'item', 'was', 'opens', 'due', 'closes', 'how'] as const
export type LedgerOrder = (typeof ledgerOrders)[number]
/** What the ledger and the crossing show. Empty texts leave nothing out. */
export interface LedgerView {
  readonly find: string
  readonly kind: string
  readonly unit: string
  readonly onlySettle: boolean
}
export const wantsLooking = (item: LedgerItem): boolean =>
  item.settle || item.findings.length > 0 || asksPeriod(item)

/** Units and items that a view shows: all words that are looked for stand in the title or the unit's. */
export function itemsInView(
  items: readonly LedgerItem[],
  view: LedgerView,
  unitTitle: (unit: string | null) => string = () => '',
): LedgerItem[] {
  const words = view.find.toLowerCase().split(/\s+/).filter(Boolean)
  return items.filter(item => {
    const { title, kind } = item.node
    const unit = isUnit(item) ? item.lineage : item.node.unit
    const text = words.length > 0 ? `${title} ${unitTitle(unit)}`.toLowerCase() : ''
    return (
      (view.kind === '' || (kind ?? 'unit') === view.kind) &&
      (view.unit === '' || unit === view.unit) &&
      (!view.onlySettle || wantsLooking(item)) &&
      words.every(word => text.includes(word))
    )
  })
}

const was = ({ node }: LedgerItem): string | null => {
  const field = tellingField(node)
  return field && node[field]
}
const howRank: Record<string, number> = { settle: 0, held: 1, moved: 2, none: 3, straight: 4, empty: 5 }
const rankOf = ({ outcomes, findings }: LedgerItem): number =>
  Math.min(findings.length > 0 ? 0 : 9, ...Object.values(outcomes).map(outcome => howRank[outcome] ?? 9))
const byText = (a: string | null, b: string | null): number => {
  if (a === null || b === null) return Number(a === null) - Number(b === null)
  return a < b ? -1 : Number(a > b)
}
const compare: Record<Exclude<LedgerOrder, 'course'>, (a: LedgerItem, b: LedgerItem) => number> = {
  item: (a, b) => a.node.title.localeCompare(b.node.title, 'en', { numeric: true }),
  was: (a, b) => byText(was(a), was(b)),
  opens: (a, b) => byText(a.planned.opens, b.planned.opens),
  due: (a, b) => byText(a.planned.due, b.planned.due),
  closes: (a, b) => byText(a.planned.closes, b.planned.closes),
  how: (a, b) => rankOf(a) - rankOf(b),
}
/** Items by a column; those without a date come last, and what is equal stays in the course's order. */
export const inOrder = (items: readonly LedgerItem[], order: Exclude<LedgerOrder, 'course'>): LedgerItem[] =>
  [...items].sort(compare[order])

/** What the ledger shows and in which order, as it stands in the address. */
export function useLedgerView() {
  const find = useAddressed('find')
  const kind = useAddressed('kind')
  const unit = useAddressed('unit')
  const settle = useAddressed('settle')
  const by = useAddressed('by')
  const onlySettle = computed({
    get: () => settle.value === 'only',
    set: only => {
      settle.value = only ? 'only' : ''
    },
  })
  const order = computed<LedgerOrder>({
    get: () => ledgerOrders.find(each => each === by.value) ?? 'course',
    set: next => {
      by.value = next === 'course' ? '' : next
    },
  })
  const view = computed((): LedgerView => ({
    find: find.value,
    kind: kind.value,
    unit: unit.value,
    onlySettle: onlySettle.value,
  }))
  const isNarrowed = computed(() => Boolean(find.value || kind.value || unit.value || onlySettle.value))
  function showAll(): void {
    for (const text of [find, kind, unit, settle]) text.value = ''
  }
  return { find, kind, unit, onlySettle, order, view, isNarrowed, showAll }
}

/** All units and items of the plan at hand with their old and new dates. */
export function useLedgerItems(base: LedgerSource = useLedgerSource()) {
  return computed(() =>
    base.nodes.flatMap(node => {
      const planned = base.planned.get(node.lineage)
      const [findings, filed] = [base.ledger?.findings.get(node.lineage), base.filed.get(node.lineage)]
      return planned ? [ledgerItem(node, planned, { findings, filed })] : []
    }),
  )
}
/** The ledger of the plan at hand: all of its units and items, and the rows that a view shows in an order. */
export function useLedger(
  withUndated: Ref<boolean>,
  view: Ref<LedgerView>,
  order: Ref<LedgerOrder>,
  base: LedgerSource = useLedgerSource(),
) {
  const items = useLedgerItems(base)
  const shellUnits = computed(() => unitTitles(base.shellNodes))
  const units = computed(() => new Map([...shellUnits.value, ...unitTitles(base.nodes)]))
  const inView = computed(() =>
    itemsInView(items.value, view.value, unit => units.value.get(unit ?? '') ?? ''),
  )
  const rows = computed((): LedgerRow[] => {
    if (order.value === 'course')
      return ledgerRows(base.nodes, inView.value, withUndated.value, shellUnits.value)
    return inOrder(withUndated.value ? inView.value : inView.value.filter(isRow), order.value)
  })
  return { items, inView, rows, units }
}
