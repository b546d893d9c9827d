import { onMounted, onUnmounted, type Ref } from 'vue'

/** Gives focus to something that has none of its own: a page, a panel, a heading. */
export function giveFocus(element: HTMLElement | null | undefined): void {
  if (!element) return
  if (!element.hasAttribute('tabindex')) element.tabIndex = -1
  element.focus({ preventScroll: true })
}
export const workPlace = (): HTMLElement | null => document.getElementById('work')
export const mainPart = (): HTMLElement | null => workPlace()?.querySelector('main') ?? null
/** Whether the focus is at nothing one could go on from: what had it is gone, or it is at the page as a whole. */
export const isFocusNowhere = (): boolean =>
  [document.body, null, workPlace(), mainPart()].includes(document.activeElement as HTMLElement | null)

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
    else giveFocus(mainPart() ?? workPlace())
  })
}

/** Where something goes away that one was just pressing, the focus goes to where work goes on. */
export function useFocusAfterwards(): void {
  onUnmounted(() => {
    if (isFocusNowhere()) giveFocus(mainPart() ?? workPlace())
  })
}
