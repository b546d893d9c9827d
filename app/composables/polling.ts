import { useIntervalFn } from '@vueuse/core'
import { watch, type Ref } from 'vue'

/** Fetches again, every so many milliseconds, for as long as something moves. A slow answer is waited for: none is asked for beside it. */
export function useRefreshWhile(
  moving: Ref<boolean>,
  refresh: () => Promise<void>,
  milliseconds: number,
): void {
  let isAsking = false
  async function ask(): Promise<void> {
    if (isAsking) return
    isAsking = true
    // What could not be fetched now is asked for again.
    await refresh().catch(() => {})
    isAsking = false
  }
  const timer = useIntervalFn(() => void ask(), milliseconds, { immediate: false })
  watch(moving, isMoving => (isMoving ? timer.resume() : timer.pause()), { immediate: true })
}
