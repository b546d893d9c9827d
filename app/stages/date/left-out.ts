import { computed, ref } from 'vue'

/** Of a list that is offered whole, what somebody does not want: `wanted` is the rest. */
export function useLeftOut<T extends { readonly id: string }>(offered: () => readonly T[]) {
  const without = ref<ReadonlySet<string>>(new Set())
  function turn(id: string): void {
    const next = new Set(without.value)
    if (!next.delete(id)) next.add(id)
    without.value = next
  }
  const wanted = computed(() => offered().filter(({ id }) => !without.value.has(id)))
  return { without, turn, wanted }
}
