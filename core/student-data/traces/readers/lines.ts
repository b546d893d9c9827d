import { codeSegment, segment, type Segment } from '../markup'

/** Lines of a text, so that what is found can be told with its line. */
export function lineSegments(text: string, withEscapes = false): Segment[] {
  const segments: Segment[] = []
  let from = 0
  for (const line of text.split('\n')) {
    const made = withEscapes
      ? { ...codeSegment('text', text, from, from + line.length) }
      : segment('text', line, from)
    if (line.trim() !== '') segments.push({ ...made, paragraph: segments.length + 1 })
    from += line.length + 1
  }
  return segments
}
