import { computed, ref, watch, type Ref } from 'vue'
import { dayOf, isoOf, minuteOf, wallOf, type Day } from '~~/core/calendar/day'
import { dateText, echoOf, type Echo } from '~~/core/dates/typed/echo'
import type { TypedContext } from '~~/core/dates/typed/typed'
import { understand } from '~~/core/dates/typed/understand'

/** What a date field rests on; what stands in it is not part of it. */
export type FieldContext = Omit<TypedContext, 'was'>

/**
 * A date being typed: the text, what is understood of it, and whether it may count. `settle` asks whether it counts now:
 * what is unlikely counts when it is asked for a second time.
 */
export function useTypedDate(
  value: Ref<string | null>,
  context: Ref<FieldContext>,
  dueOn?: (day: Day) => number,
) {
  const was = computed(() =>
    value.value === null
      ? null
      : { day: dayOf(value.value), minute: value.value.length > 10 ? minuteOf(value.value) : 0 },
  )
  const whole = computed((): TypedContext => ({ ...context.value, was: was.value }))
  const textOf = (day: Day, minute: number | null): string =>
    dateText(day, context.value.usualMinute === null ? null : minute, context.value)
  const standing = (): string => (was.value ? textOf(was.value.day, was.value.minute) : '')
  const text = ref(standing())
  const isTouched = computed(() => text.value !== standing())
  const understood = computed(() => understand(text.value, whole.value))
  const echo = computed((): Echo => echoOf(understood.value, whole.value, dueOn))
  /** The text for which one was told that it is unlikely. */
  let askedFor: string | null = null

  const back = (): void => {
    text.value = standing()
    askedFor = null
  }
  watch(value, back)

  /** The value that the text stands for: null for no date, undefined where it may not count (yet). */
  function settle(): string | null | undefined {
    if (!isTouched.value) return value.value
    const now = understood.value
    if (now.is === 'none') return null
    if (now.is !== 'date') return undefined
    if (now.unlikely && askedFor !== text.value) {
      askedFor = text.value
      return undefined
    }
    return now.minute === null ? isoOf(now.day) : wallOf(now.day, now.minute)
  }
  /** One of the two days that a text can be read as. */
  function choose(which: 0 | 1): boolean {
    const now = understood.value
    if (now.is !== 'which') return false
    text.value = textOf(now.days[which], now.minute)
    return true
  }
  /** The day in question: what was understood, else what stands. */
  const day = computed(() =>
    understood.value.is === 'date' ? understood.value.day : (was.value?.day ?? null),
  )
  /** Puts a day in the field, with the time that is typed or stands. */
  function put(chosen: Day): void {
    const now = understood.value
    const minute = now.is === 'date' ? now.minute : (was.value?.minute ?? context.value.usualMinute)
    text.value = textOf(chosen, minute)
  }
  return { text, echo, understood, isTouched, day, settle, choose, put, back }
}
