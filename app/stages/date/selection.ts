import { nextTick, onMounted, ref, watch, type Ref } from 'vue'
import { useRoute, useRouter } from '#imports'

interface Selectable {
  readonly lineage: string
}
/**
 * Which row is selected. It is in the address too, so that it survives a refresh and can be sent to a colleague; what is
 * pressed next need not wait for the address to change. `shown`: brings a row that was selected into sight.
 */
export function useSelection<T extends Selectable>(
  rows: Readonly<Ref<readonly T[]>>,
  shown: (lineage: string) => void,
) {
  const route = useRoute()
  const router = useRouter()
  const inAddress = (): string | null => (route.query.item ? String(route.query.item) : null)
  const selected = ref(inAddress())
  watch(selected, value => void router.replace({ query: { ...route.query, item: value ?? undefined } }))
  watch(
    () => route.query.item,
    () => {
      selected.value = inAddress()
    },
  )
  function select(lineage: string): void {
    selected.value = lineage
    shown(lineage)
  }
  const at = (): number => rows.value.findIndex(row => row.lineage === selected.value)
  function move(step: number): void {
    const last = rows.value.length - 1
    const index = at() < 0 ? 0 : Math.max(0, Math.min(last, at() + step))
    const next = rows.value[index]
    if (next) select(next.lineage)
  }
  /** The next row of a sort, from the selected one on and round to the beginning. */
  function nextWhere(wanted: (row: T) => boolean): void {
    const from = at() + 1
    const next = [...rows.value.slice(from), ...rows.value.slice(0, from)].find(wanted)
    if (next) select(next.lineage)
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
  return { selected, select, move, nextWhere }
}
