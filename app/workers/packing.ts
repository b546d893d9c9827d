import type { Flag } from '~~/core/dates/flags'
import type { CrossedDate, PlannedItem } from '~~/core/dates/plan'

/** Planned items as they travel between threads: what items share is sent once, and each item is four numbers that point to it. */
export interface PackedItems {
  ids: string[]
  dates: CrossedDate[]
  flags: (readonly Flag[])[]
  rows: Int32Array<ArrayBuffer>
}

function numbering<T>(): { of: (value: T) => number; values: T[] } {
  const numbers = new Map<T, number>()
  const values: T[] = []
  return {
    values,
    of: value => {
      let number = numbers.get(value)
      if (number === undefined) {
        numbers.set(value, (number = values.length))
        values.push(value)
      }
      return number
    },
  }
}

/** Copying thousands of small objects to another thread takes longer than making them: so they are made where they are wanted. */
export function packItems(items: readonly PlannedItem[]): PackedItems {
  const dates = numbering<CrossedDate>()
  const flags = numbering<readonly Flag[]>()
  const rows = new Int32Array(items.length * 4)
  items.forEach((item, at) =>
    rows.set(
      [
        dates.of(item.crossed.opens),
        dates.of(item.crossed.due),
        dates.of(item.crossed.closes),
        flags.of(item.flags),
      ],
      at * 4,
    ),
  )
  return { ids: items.map(item => item.id), dates: dates.values, flags: flags.values, rows }
}

export function unpackItems({ ids, dates, flags, rows }: PackedItems): PlannedItem[] {
  return ids.map((id, at) => {
    const [opens, due, closes] = [dates[rows[at * 4]!]!, dates[rows[at * 4 + 1]!]!, dates[rows[at * 4 + 2]!]!]
    return {
      id,
      opens: opens.at,
      due: due.at,
      closes: closes.at,
      flags: flags[rows[at * 4 + 3]!]!,
      crossed: { opens, due, closes },
    }
  })
}
