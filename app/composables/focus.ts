import { useIntervalFn } from '@vueuse/core'
import { onMounted, onUnmounted, ref, watch, type Ref } from 'vue'
import { useRoute } from '#imports'

/** Gives focus to something that has none of its own: a page, a panel, a heading. */
export function giveFocus(element: HTMLElement | null | undefined): void {
  if (!element) return
  if (!element.hasAttribute('tabindex')) element.tabIndex = -1
  element.focus({ preventScroll: true })
}
const work = (): HTMLElement | null => document.getElementById('work')
const main = (): HTMLElement | null => work()?.querySelector('main') ?? null
/** Whether the focus is at nothing one could go on from: what had it is gone, or it is at the page as a whole. */
export const isFocusNowhere = (): boolean =>
  [document.body, null, work(), main()].includes(document.activeElement as HTMLElement | null)

/** A panel that opens takes the focus, and gives it back to where it came from when it closes. */
export function useBorrowedFocus(panel: Ref<HTMLElement | undefined>): void {
  let before: Element | null = null
  onMounted(() => {
    before = document.activeElement
    if (!panel.value?.contains(before)) giveFocus(panel.value)
  })
  onUnmounted(() => {
    const isElsewhere = document.activeElement !== document.body && document.activeElement !== null
    if (isElsewhere) return
    if (before instanceof HTMLElement && before.isConnected) before.focus({ preventScroll: true })
    else giveFocus(main() ?? work())
  })
}

/** Where something goes away that one was just pressing, the focus goes to where work goes on. */
export function useFocusAfterwards(): void {
  onUnmounted(() => {
    if (isFocusNowhere()) giveFocus(main() ?? work())
  })
}

/** A page may stand only once its data are there: so long, in steps, its main part is waited for. */
const [step, steps] = [80, 60]
/** After another page or stage: the focus goes to where work goes on, and what it is is said aloud. Called once, by the layout. */
export function usePageFocus() {
  const route = useRoute()
  const told = ref('')
  let left = 0
  const timer = useIntervalFn(
    () => {
      const page = main()
      if (page && document.activeElement !== page && isFocusNowhere()) giveFocus(page)
      const heading = page?.querySelector('h1')?.textContent?.trim()
      if (heading) told.value = heading
      left--
      if (left <= 0) timer.pause()
    },
    step,
    { immediate: false },
  )
  watch(
    () => route.path,
    () => {
      giveFocus(main() ?? work())
      left = steps
      timer.resume()
    },
    { flush: 'post' },
  )
  return { told }
}
