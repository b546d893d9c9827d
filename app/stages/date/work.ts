import { computed, nextTick, ref, watch, type Ref } from 'vue'
import { dateFields, type DateField, type ItemDates } from '~~/core/course/dates'
import { keysFor, type KeyBinding } from '~/composables/keys'
import { useHand } from './hand'
import type { LedgerItem } from './ledger'
import { useSelection } from './selection'
import { useLedgerSource, type LedgerSource } from './source'
import { useLedger, useLedgerView, wantsLooking } from './view'

/** What a ledger's table and tools can be asked for. */
interface Shown {
  readonly table: Readonly<Ref<{ show: (lineage: string) => void } | null>>
  readonly tools: Readonly<Ref<{ focus: () => void } | null>>
}
/**
 * Work in a ledger of dates, of a plan or of a shell: what is shown, looked at and chosen, and the keys that move it.
 * `isOpen`: whether it is in sight and may be changed.
 */
export function useLedgerWork(
  { table, tools }: Shown,
  {
    withUndated,
    isOpen,
    base = useLedgerSource(),
  }: { withUndated: Ref<boolean>; isOpen: Readonly<Ref<boolean>>; base?: LedgerSource },
) {
  const looked = useLedgerView()
  const { order, view, onlySettle } = looked
  const ledger = useLedger(withUndated, view, order, base)
  const { items, rows } = ledger
  const editing = ref<string | null>(null)
  const shownItems = computed(() => rows.value.filter((row): row is LedgerItem => row.type === 'item'))
  const selection = useSelection(shownItems, lineage => {
    if (editing.value !== lineage) editing.value = null
    void nextTick(() => table.value?.show(lineage))
  })
  const { selected, chosen, select, move, nextWhere, choose, toggle, extend } = selection
  const current = computed(() => items.value.find(item => item.lineage === selected.value) ?? null)
  /** In the order in which they are shown; what is not shown at the moment stays chosen and comes last. */
  const chosenItems = computed(() => {
    if (chosen.value.size === 0) return []
    const shown = shownItems.value.filter(item => chosen.value.has(item.lineage))
    const isShown = new Set(shown.map(item => item.lineage))
    return [
      ...shown,
      ...items.value.filter(item => chosen.value.has(item.lineage) && !isShown.has(item.lineage)),
    ]
  })
  /** Chosen under an earlier filter, and out of sight now: they change with the others. */
  const outOfSight = computed(() => {
    if (chosen.value.size === 0) return 0
    const inSight = shownItems.value.filter(item => chosen.value.has(item.lineage)).length
    return chosenItems.value.length - inSight
  })
  const chooseAllOf = (is: (item: LedgerItem) => boolean): void =>
    choose(shownItems.value.filter(is).map(item => item.lineage))
  const dropOutOfSight = (): void => chooseAllOf(item => chosen.value.has(item.lineage))
  /** What a change is for: the chosen items, else the one that is looked at; nothing where the ledger is out of sight. */
  const meant = computed(() => {
    if (!isOpen.value) return []
    return chosenItems.value.length > 0 || !current.value ? chosenItems.value : [current.value]
  })
  const hand = useHand(items, meant, base)

  /** The one date of the row that keys move alone; null: they move all of them, so that the item stays open as long. */
  const field = ref<DateField | null>(null)
  watch(selected, () => {
    field.value = null
  })
  function turn(by: 1 | -1): void {
    const all = [null, ...dateFields]
    field.value = all[(all.indexOf(field.value) + by + all.length) % all.length] ?? null
  }
  const nudge = (days: number): void => hand.move(days, chosen.value.size > 0 ? null : field.value)
  function commit(lineage: string, dates: ItemDates): void {
    hand.holdAt(lineage, dates)
    editing.value = null
  }
  function edit(): void {
    if (isOpen.value && current.value) editing.value = current.value.lineage
  }
  function editRow(lineage: string): void {
    select(lineage)
    edit()
  }
  function toggleCurrent(): void {
    if (current.value) toggle(current.value.lineage)
  }
  const narrowed = computed(() => {
    const { find, kind, unit, isNarrowed } = looked
    if (!isNarrowed.value) return 'no'
    return onlySettle.value && !(find.value || kind.value || unit.value) ? 'settle' : 'some'
  })
  const keys: readonly KeyBinding[] = [
    ...keysFor(['j', 'ArrowDown'], 'next row', () => move(1)),
    ...keysFor(['k', 'ArrowUp'], 'row before', () => move(-1)),
    ...keysFor(['ArrowRight'], 'one date of the row alone', () => turn(1)),
    ...keysFor(['ArrowLeft'], 'the date before it', () => turn(-1)),
    { key: 'x', does: 'choose this row, or not', run: toggleCurrent },
    { key: ' ', does: 'choose this row, or not', hidden: true, run: toggleCurrent },
    ...keysFor(['J', 'shift+ArrowDown'], 'choose the next row as well', () => extend(1)),
    ...keysFor(['K', 'shift+ArrowUp'], 'choose the row before as well', () => extend(-1)),
    { key: 'ctrl+a', does: 'choose all that is shown', run: () => chooseAllOf(() => true) },
    {
      key: 'X',
      does: 'choose all of its kind',
      run: () => chooseAllOf(item => item.node.kind === current.value?.node.kind),
    },
    { key: 'Escape', does: 'choose none', run: () => chosen.value.size > 0 && choose([]) },
    { key: 'f', does: 'find items by words', run: () => tools.value?.focus() },
    { key: 'n', does: `next ${base.words.look}`, run: () => nextWhere(wantsLooking) },
    { key: 'e', does: 'edit its dates', run: edit },
    { key: 'Enter', does: 'edit its dates', hidden: true, run: edit },
    { key: '[', does: 'a day earlier', run: () => nudge(-1) },
    { key: ']', does: 'a day later', run: () => nudge(1) },
    { key: '{', does: 'a week earlier', run: () => nudge(-7) },
    { key: '}', does: 'a week later', run: () => nudge(7) },
  ]
  return {
    ...looked,
    ...ledger,
    ...selection,
    shownItems,
    current,
    chosenItems,
    outOfSight,
    chooseAllOf,
    dropOutOfSight,
    hand,
    meant,
    editing,
    field,
    commit,
    edit,
    editRow,
    narrowed,
    toLookAt: computed(() => items.value.filter(wantsLooking).length),
    keys,
  }
}
