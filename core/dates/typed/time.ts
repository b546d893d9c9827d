interface Timed {
  /** What is left of the text. */
  readonly text: string
  /** Minutes after midnight; null where the text ends in no time. */
  readonly minute: number | null
  /** What looks like a time and is none: `25:10`. */
  readonly isWrong: string | null
}
const clock = /(?:^|\s|t(?=\d))(?:at\s+)?(\d{1,2})(?:[:h.](\d{2})(?::\d{2})?\s*(am|pm)?|\s*(am|pm))$/
const words: Record<string, number> = { noon: 720, midday: 720, midnight: 0 }

/** Takes a time off the end of a text in lower case. `5.3` is no time: a time with a dot follows a day. */
export function timeOff(text: string): Timed {
  const word = /(?:^|\s)(?:at\s+)?(noon|midday|midnight)$/.exec(text)
  if (word?.[1]) return { text: text.slice(0, word.index).trim(), minute: words[word[1]] ?? 0, isWrong: null }
  const found = clock.exec(text)
  if (!found || (found.index === 0 && /^\d{1,2}\.\d{2}$/.test(text)))
    return { text, minute: null, isWrong: null }
  const [whole, hours, minutes = '0', half = found[4]] = found
  const hour = half ? (Number(hours) % 12) + (half === 'pm' ? 12 : 0) : Number(hours)
  const isTime = hour < 24 && Number(minutes) < 60 && (!half || (Number(hours) >= 1 && Number(hours) <= 12))
  return {
    text: text.slice(0, found.index).trim(),
    minute: hour * 60 + Number(minutes),
    isWrong: isTime ? null : whole.trim(),
  }
}

/**
 * The minute of the day that a text says where nothing but a time can be meant: `14:30`, `2:30 pm`, `noon`, and also `9`,
 * `9.30` and `0930`. Null where it is no time.
 */
export function timeTyped(typed: string): number | null {
  const text = typed.toLowerCase().replace(/\s+/g, ' ').trim()
  const figures = /^(\d{1,2})(?:[:.h]?(\d{2}))?$/.exec(text)
  const time = timeOff(figures ? `${figures[1]}:${figures[2] ?? '00'}` : text)
  return time.text === '' && time.isWrong === null ? time.minute : null
}
