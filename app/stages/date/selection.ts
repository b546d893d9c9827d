import { computed, nextTick, onMounted, ref, watch, type Ref } from 'vue'
import { useAddressed } from '~/composables/address'

interface Selectable {
  readonly lineage: string
}
/**
 * Which row one looks at, and which are chosen for a change of many. The row is in the address too. `shown`: brings a row that
 * was selected into sight.
 */
export function useSelection<T extends Selectable>(
  rows: Readonly<Ref<readonly T[]>>,
  shown: (lineage: string) => void,
) {
  const address = useAddressed('item')
  const selected = computed<string | null>({
    get: () => address.value || null,
    set: lineage => {
      address.value = lineage ?? ''
    },
  })
  function select(lineage: string): void {
    selected.value = lineage
    anchor.value = null
    shown(lineage)
  }
  const placeOf = (lineage: string | null): number => rows.value.findIndex(row => row.lineage === lineage)
  const at = (): number => placeOf(selected.value)
  const neighbour = (step: number): T | undefined => {
    const last = rows.value.length - 1
    return rows.value[at() < 0 ? 0 : Math.max(0, Math.min(last, at() + step))]
  }
  function move(step: number): void {
    const next = neighbour(step)
    if (next) select(next.lineage)
  }
  /** The next row of a sort, from the selected one on and round to the beginning. */
  function nextWhere(wanted: (row: T) => boolean): void {
    const from = at() + 1
    const next = [...rows.value.slice(from), ...rows.value.slice(0, from)].find(wanted)
    if (next) select(next.lineage)
  }

  const chosen = ref<ReadonlySet<string>>(new Set())
  const choose = (lineages: Iterable<string>): void => {
    chosen.value = new Set(lineages)
  }
  function toggle(lineage: string): void {
    const next = new Set(chosen.value)
    if (!next.delete(lineage)) next.add(lineage)
    chosen.value = next
    anchor.value = null
  }
  /** Where a range that is being chosen began, and what was chosen before it. */
  const anchor = ref<{ lineage: string; before: ReadonlySet<string> } | null>(null)
  /** Chooses all rows from where one stood to this one; a range that is drawn further or shorter replaces the one before. */
  function chooseTo(lineage: string): void {
    const start = (anchor.value ??= { lineage: selected.value ?? lineage, before: chosen.value })
    const [from, to] = [placeOf(start.lineage), placeOf(lineage)].sort((a, b) => a - b)
    const range = rows.value.slice(Math.max(0, from ?? 0), (to ?? 0) + 1).map(row => row.lineage)
    choose([...start.before, ...range])
    selected.value = lineage
    shown(lineage)
  }
  function extend(step: number): void {
    const next = neighbour(step)
    if (next) chooseTo(next.lineage)
  }

  // The rows may come later than the page: then the selected one is brought into sight with them.
  const isHere = (): boolean => selected.value !== null && at() >= 0
  onMounted(() => {
    const stop = watch(
      isHere,
      here => {
        if (!here || !selected.value) return
        shown(selected.value)
        void nextTick(() => stop())
      },
      { immediate: true },
    )
  })
  return { selected, chosen, select, move, nextWhere, choose, toggle, chooseTo, extend }
}
