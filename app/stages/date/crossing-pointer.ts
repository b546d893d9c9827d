import { useEventListener } from '@vueuse/core'
import { computed, shallowRef, type Ref } from 'vue'
import { dayOf, isoOf, type Day } from '~~/core/calendar/day'
import { teachingWeek, type Term } from '~~/core/calendar/term'
import { dayText } from '~~/core/dates/words'
import { sourceY, targetY, type Axis } from './crossing-axes'
import type { Thread } from './crossing'
import type { LedgerItem } from './ledger'

/** A mark that is being dragged along the lower line. `days`: how far it is from where it was. */
interface Drag {
  readonly items: readonly LedgerItem[]
  readonly startX: number
  readonly from: Day
  readonly days: number
  readonly moved: boolean
}
/** A stretch of a line that is being swept over. */
interface Sweep {
  readonly onSource: boolean
  readonly from: number
  readonly to: number
}
/** Less than this is a press, not a drag. Pixels. */
const least = 4

/** What a day is, in a few words: `Fri 5 Feb · week 5 · 3 due`. */
export function dueOnText(term: Term, day: Day, due: number): string {
  const closure = term.closureOn(day)
  const { week, after } = teachingWeek(term, day)
  const isWithin = day >= term.firstWeek && day <= term.classes.to && after === 0
  return [
    dayText(isoOf(day)),
    ...(closure ? [closure.name || 'no classes'] : []),
    ...(isWithin ? [`week ${week}`] : []),
    `${due === 0 ? 'none' : due} due`,
  ].join(' · ')
}

/**
 * Dragging a mark to another day and sweeping over marks. Nothing is computed while the pointer moves but a day: what it
 * does is said when it is let go.
 */
export function useCrossingPointer(
  picture: Ref<SVGSVGElement | undefined>,
  axes: Ref<{ source: Axis; target: Axis } | null>,
  does: {
    threads: () => readonly Thread[]
    /** Items that go along with one that is dragged: all that are chosen, where it is among them. */
    along: (item: LedgerItem) => readonly LedgerItem[]
    move: (items: readonly LedgerItem[], days: number) => void
    choose: (items: readonly LedgerItem[], adds: boolean) => void
  },
) {
  const drag = shallowRef<Drag | null>(null)
  const sweep = shallowRef<Sweep | null>(null)
  const placeIn = (event: PointerEvent): { x: number; y: number } => {
    const box = picture.value?.getBoundingClientRect()
    return { x: event.clientX - (box?.left ?? 0), y: event.clientY - (box?.top ?? 0) }
  }
  function grab(event: PointerEvent, thread: Thread): void {
    const [item] = thread.items
    const at = item?.planned[thread.field]
    if (!item || !at || event.button !== 0) return
    const items = thread.items.flatMap(each => does.along(each))
    drag.value = { items, startX: placeIn(event).x, from: dayOf(at), days: 0, moved: false }
  }
  function press(event: PointerEvent): void {
    if (event.button !== 0 || drag.value) return
    const { x, y } = placeIn(event)
    sweep.value = { onSource: y < (sourceY + targetY) / 2, from: x, to: x }
  }
  useEventListener('pointermove', (event: PointerEvent) => {
    const now = drag.value
    if (now && axes.value) {
      const { x } = axes.value.target
      const distance = placeIn(event).x - now.startX
      const days = Math.round(x.invert(x(now.from) + distance) - now.from)
      const moved = now.moved || Math.abs(distance) >= least
      if (days !== now.days || moved !== now.moved) drag.value = { ...now, days, moved }
    } else if (sweep.value) sweep.value = { ...sweep.value, to: placeIn(event).x }
  })
  const ended = (event: PointerEvent): void => {
    const { value: dragged } = drag
    const { value: swept } = sweep
    drag.value = null
    sweep.value = null
    if (dragged?.moved && dragged.days !== 0) does.move([...new Set(dragged.items)], dragged.days)
    if (!swept || Math.abs(swept.to - swept.from) < least) return
    const [from, to] = [Math.min(swept.from, swept.to), Math.max(swept.from, swept.to)]
    const isIn = (place: number | null): boolean => place !== null && place >= from && place <= to
    const found = does.threads().filter(thread => isIn(swept.onSource ? thread.from : thread.to))
    does.choose(
      found.flatMap(thread => thread.items),
      event.shiftKey || event.ctrlKey || event.metaKey,
    )
  }
  useEventListener('pointerup', ended)
  const stop = (): void => {
    drag.value = null
    sweep.value = null
  }
  useEventListener('pointercancel', stop)
  // Escape lets go of what is being dragged, and of nothing else then.
  useEventListener(
    'keydown',
    (event: KeyboardEvent) => {
      if (event.key !== 'Escape' || !(drag.value || sweep.value)) return
      event.stopPropagation()
      event.preventDefault()
      stop()
    },
    { capture: true },
  )
  const box = computed(() => {
    const now = sweep.value
    if (!now || Math.abs(now.to - now.from) < least) return null
    const y = now.onSource ? sourceY - 16 : targetY - 16
    return { x: Math.min(now.from, now.to), width: Math.abs(now.to - now.from), y, height: 32 }
  })
  return { drag, box, grab, press }
}
