import { useIntervalFn } from '@vueuse/core'
import { watch, type Ref } from 'vue'

/** Fetches again, every so many milliseconds, for as long as something moves. */
export function useRefreshWhile(
  moving: Ref<boolean>,
  refresh: () => Promise<void>,
  milliseconds: number,
): void {
  const timer = useIntervalFn(() => void refresh(), milliseconds, { immediate: false })
  watch(moving, isMoving => (isMoving ? timer.resume() : timer.pause()), { immediate: true })
}
