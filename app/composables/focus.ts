import { nextTick, onMounted, onUnmounted, ref, watch, type Ref } from 'vue'
import { useRoute } from '#imports'

/** Gives focus to something that has none of its own: a page, a panel, a heading. */
export function giveFocus(element: HTMLElement | null | undefined): void {
  if (!element) return
  if (!element.hasAttribute('tabindex')) element.tabIndex = -1
  element.focus({ preventScroll: true })
}
const work = (): HTMLElement | null => document.getElementById('work')

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
    else giveFocus(work()?.querySelector('main') ?? work())
  })
}

const headingWait = 400
/** After another page or stage: the focus goes to where work goes on, and what it is is said aloud. Called once, by the layout. */
export function usePageFocus() {
  const route = useRoute()
  const told = ref('')
  watch(
    () => route.path,
    () =>
      void nextTick(() => {
        giveFocus(work()?.querySelector('main') ?? work())
        setTimeout(() => {
          told.value = work()?.querySelector('h1')?.textContent?.trim() ?? document.title
        }, headingWait)
      }),
    { flush: 'post' },
  )
  return { told }
}
