import { useTimeoutFn } from '@vueuse/core'
import { shallowRef, watch, type ShallowRef } from 'vue'
import { onNextPaint } from '~/composables/after-paint'
import { usePlan } from '../plan/store'

/** Where no new ledger comes, what waits for one is shown all the same. Milliseconds. */
const longest = 120
/** What a value was until the ledger that follows from it is painted: for what need not be read before the dates. */
export function useAfterLedger<T>(value: () => T): Readonly<ShallowRef<T>> {
  const store = usePlan()
  const late = shallowRef(value()) as ShallowRef<T>
  const show = (): void => {
    late.value = value()
  }
  const { start, stop } = useTimeoutFn(show, longest, { immediate: false })
  watch(value, () => start())
  watch(
    () => store.ledger,
    () => {
      stop()
      onNextPaint(show)
    },
  )
  return late
}
