import { wallTime } from '../../calendar/schema'
import type { DateMethod } from '../method'
import { reason } from '../reason'
import { fieldWord, momentOrBlank } from '../saying'

const date = wallTime.nullish().transform(value => value ?? null)
const parameters = { opens: date, due: date, closes: date }
const reasons = {
  'set-by-hand': reason({
    short: 'held',
    sentence: ({ field, before, after }) => {
      const was = before === null ? 'It had none.' : `It was ${momentOrBlank(before)}.`
      return after === null
        ? `No ${fieldWord[field]}, by hand. ${was}`
        : `Held at ${momentOrBlank(after)} by hand. ${was}`
    },
  }),
}

/** Exactly the dates that somebody set. */
export const set: DateMethod<'set', typeof parameters, typeof reasons> = {
  name: 'set',
  title: 'Held',
  line: 'set by hand',
  parameters,
  reasons,
  byHand: true,
  flag: 'set-by-hand',
  state(rule, field, was) {
    const [before, after] = [was[field], rule[field]]
    const untouched = before === null && after === null
    return { at: after, reason: untouched ? null : { field, code: 'set-by-hand', before, after } }
  },
}
