import { present } from '../../present'
import ICAL from 'ical.js'
import { FormatRefusal } from '../refusal'

/** A property of a component as the parser gives it: name, parameters, type, values (RFC 7265 §3.4); and the line it starts on. */
export interface Property {
  readonly name: string
  readonly parameters: Readonly<Record<string, string>>
  readonly values: readonly unknown[]
  readonly line: number
}
/** A component: the content lines that stand in it directly, unfolded and not yet parsed, by name; and its parts. */
export interface Component {
  readonly name: string
  readonly line: number
  readonly lines: Map<string, { text: string; line: number }[]>
  readonly parts: Component[]
}

const lineLength = 1024 * 1024
const nesting = 8

/**
 * Splits an iCalendar stream into its components. Folded lines are joined (RFC 5545 §3.1); each property is parsed only
 * when it is asked for, so that one broken event does not cost the others.
 * @throws FormatRefusal where the stream is no iCalendar, is cut off, or its components do not close.
 */
export function componentsOf(file: string, text: string, each: (component: Component) => void): void {
  const open: Component[] = []
  let calendars = 0
  let number = 0
  let pending = ''
  let pendingLine = 0
  const endLine = (): void => {
    if (pending === '') return
    const line = pending
    const at = pendingLine
    pending = ''
    const end = line.search(/[:;]/)
    const name = (end < 0 ? line : line.slice(0, end)).trim().toUpperCase()
    const value = (): string =>
      line
        .slice(line.indexOf(':') + 1)
        .trim()
        .toUpperCase()
    if (name === 'BEGIN') {
      const component: Component = { name: value(), line: at, lines: new Map(), parts: [] }
      if (open.length === 0 && component.name !== 'VCALENDAR')
        throw new FormatRefusal('begins-otherwise', file, { line: at, found: component.name })
      if (open.length >= nesting)
        throw new FormatRefusal('components-too-deep', file, { line: at, most: nesting })
      if (open.length === 0) calendars++
      open.push(component)
    } else if (name === 'END') {
      const component = open.pop()
      if (!component || component.name !== value())
        throw new FormatRefusal('ends-otherwise', file, { line: at, found: value() })
      // What stands directly in a calendar is handed over at once; its parts stay with it.
      if (open.length === 1) each(component)
      else if (open.length > 1) present(open.at(-1)).parts.push(component)
    } else if (open.length === 0) throw new FormatRefusal('not-begun', file, { line: at })
    else {
      const { lines } = present(open.at(-1))
      const list = lines.get(name)
      if (list) list.push({ text: line, line: at })
      else lines.set(name, [{ text: line, line: at }])
    }
  }
  for (let from = 0; from <= text.length;) {
    let to = text.indexOf('\n', from)
    if (to < 0) to = text.length
    const line = text.slice(from, to > from && text[to - 1] === '\r' ? to - 1 : to)
    from = to + 1
    number++
    if (line.startsWith(' ') || line.startsWith('\t')) {
      if (pending.length + line.length > lineLength)
        throw new FormatRefusal('line-too-long', file, { line: number, most: lineLength })
      pending += line.slice(1)
    } else {
      endLine()
      if (line.length > lineLength)
        throw new FormatRefusal('line-too-long', file, { line: number, most: lineLength })
      pending = line
      pendingLine = number
    }
  }
  endLine()
  if (calendars === 0) throw new FormatRefusal('no-calendar', file)
  const last = open.at(-1)
  if (last) throw new FormatRefusal('calendar-cut-off', file, { component: last.name, line: last.line })
}

const [lineFeed, carriageReturn, space, tab] = [10, 13, 32, 9]
const isContinuation = (byte: number | undefined): boolean => byte !== undefined && (byte & 0xc0) === 0x80
/**
 * A stream whose folds stand between characters: where one cuts a character of UTF-8 in two, the rest of it is moved before the
 * fold. Lines keep their numbers.
 */
export function wholeCharacters(bytes: Uint8Array): Uint8Array {
  let whole: Uint8Array | null = null
  for (let at = bytes.indexOf(lineFeed); at >= 0; at = bytes.indexOf(lineFeed, at + 1)) {
    const next = bytes[at + 1]
    if ((next !== space && next !== tab) || !isContinuation(bytes[at + 2])) continue
    const from = bytes[at - 1] === carriageReturn ? at - 1 : at
    if ((bytes[from - 1] ?? 0) < 0x80) continue
    let end = at + 2
    while (isContinuation(bytes[end])) end++
    whole ??= bytes.slice()
    const fold = bytes.subarray(from, at + 2)
    whole.set(bytes.subarray(at + 2, end), from)
    whole.set(fold, from + (end - at - 2))
  }
  return whole ?? bytes
}

/** The properties of a name. @throws Error where one cannot be parsed. */
export function propertiesOf(component: Component, name: string): Property[] {
  return (component.lines.get(name) ?? []).map(({ text: asWritten, line }) => {
    // Enumerated values count in any case (RFC 5545 §2); the parser knows capitals only.
    const text = name === 'RRULE' ? asWritten.toUpperCase() : asWritten
    const [, parameters, , ...values] = ICAL.parse.property(text, ICAL.design.icalendar) as [
      string,
      Record<string, string>,
      string,
      ...unknown[],
    ]
    return { name, parameters, values, line }
  })
}
export const propertyOf = (component: Component, name: string): Property | undefined =>
  propertiesOf(component, name)[0]
