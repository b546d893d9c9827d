import { childrenNamed, descend, elementsBelow, parseXml, type XmlElement } from '../xml'

/** A question as it is read by people: HTML or plain text of the prompt and of each answer offered. */
export interface Question { prompt: string, answers: string[] }

const material = (element: XmlElement | undefined): string => {
  if (!element) return ''
  return [...elementsBelow(element)].filter(child => child.name === 'mattext')
    .map(child => child.attributes.texttype === 'text/html' ? child.text : child.text.replace(/&/g, '&amp;').replace(/</g, '&lt;')).join('\n')
}

/** The questions of a QTI 1.2 assessment, for reading. */
export function questionsOf(name: string, xml: string): Question[] {
  return [...elementsBelow(parseXml(name, xml))].filter(element => element.name === 'item').map((item) => {
    const presentation = descend(item, 'presentation')
    return {
      prompt: material(presentation && { ...presentation, children: childrenNamed(presentation, 'material') }),
      answers: presentation ? [...elementsBelow(presentation)].filter(element => element.name === 'response_label').map(material) : [],
    }
  })
}
