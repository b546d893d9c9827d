import { useDebounceFn, useEventListener, type UseManualRefHistoryReturn } from '@vueuse/core'
import type { PlanDocument } from '~~/core/plan/document'

type Steps = Pick<
  UseManualRefHistoryReturn<PlanDocument | null, PlanDocument | null>,
  'undoStack' | 'redoStack' | 'last'
>
interface Kept {
  now: PlanDocument | null
  undo: (PlanDocument | null)[]
  redo: (PlanDocument | null)[]
}
/** A reload gives back so many steps; more would outgrow what a browser keeps for a page. */
const keptAtMost = 40
/** Steps of a large plan take a while to write down: they are kept once somebody rests, or leaves. Milliseconds. */
const rest = 300
const nameOf = (planId: string): string => `northtide-steps-${planId}`

/** Keeps the steps of a plan through a reload of the page, in the browser's memory of this tab. */
export function useKeptSteps({ undoStack, redoStack, last }: Steps) {
  const snapshots = (stack: Steps['undoStack']): (PlanDocument | null)[] =>
    stack.value.slice(0, keptAtMost).map(step => step.snapshot)
  /** The plan whose steps are not written down yet. */
  let waiting: string | null = null
  const later = useDebounceFn(() => keepNow(), rest)
  function keep(planId: string): void {
    waiting = planId
    void later()
  }
  /** Writes down what waits to be. */
  function keepNow(): void {
    const planId = waiting
    waiting = null
    if (planId === null) return
    const kept: Kept = { now: last.value.snapshot, undo: snapshots(undoStack), redo: snapshots(redoStack) }
    try {
      sessionStorage.setItem(nameOf(planId), JSON.stringify(kept))
    } catch {
      // The browser keeps no more: a reload then begins without steps, and nothing else is lost.
      sessionStorage.removeItem(nameOf(planId))
    }
  }
  useEventListener('pagehide', keepNow)
  /** Gives back the steps of a plan, if they lead to the document that is shown now. */
  function restore(planId: string, shown: PlanDocument): void {
    const text = sessionStorage.getItem(nameOf(planId))
    if (text === null) return
    const kept = JSON.parse(text) as Kept
    if (JSON.stringify(kept.now) !== JSON.stringify(shown)) return
    const records = (documents: (PlanDocument | null)[]) =>
      documents.map(snapshot => ({ snapshot, timestamp: 0 }))
    undoStack.value = records(kept.undo)
    redoStack.value = records(kept.redo)
  }
  return { keep, keepNow, restore }
}
