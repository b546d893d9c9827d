import type { ReadLimits } from '../../limits'
import { FormatRefusal } from '../../refusal'
import { descend, parseXml, type XmlElement } from '../../xml'

const itemsIn = (element: XmlElement): XmlElement[] =>
  element.children.flatMap(child => {
    if (child.name === 'item') return [child]
    return child.name === 'section' ? itemsIn(child) : []
  })
/** The elements of all questions, in the order in which `readQuestions` tells them: of a quiz sections first, of a bank what stands in none. */
function questionElements(root: XmlElement): XmlElement[] {
  const assessment = descend(root, 'assessment')
  const holder = assessment ?? descend(root, 'objectbank')
  if (!holder) return []
  const loose = holder.children.filter(child => child.name === 'item')
  const sectioned = holder.children.filter(child => child.name === 'section').flatMap(itemsIn)
  return assessment ? [...sectioned, ...loose] : [...loose, ...sectioned]
}

/**
 * A quiz or bank (QTI 1.2) with some of its questions alone, by their place among all, from 0. Everything else stays character by character;
 * what was chosen keeps its order. @throws FormatRefusal where it is neither, or a question is not there.
 */
export function chooseQuestions(
  where: string,
  text: string,
  chosen: readonly number[],
  limits: Pick<ReadLimits, 'xmlDepth'>,
): string {
  const root = parseXml(where, text, limits)
  const elements = questionElements(root)
  if (chosen.some(at => !elements[at])) throw new FormatRefusal('no-questions', where)
  const wanted = new Set(chosen)
  const cut = elements
    .filter((_, at) => !wanted.has(at))
    .map(({ from, to }) => ({ from: text.lastIndexOf('<', from - 1), to }))
    .sort((a, b) => a.from - b.from)
  let at = 0
  let kept = ''
  for (const gap of cut) {
    kept += text.slice(at, gap.from)
    at = gap.to
  }
  return kept + text.slice(at)
}
