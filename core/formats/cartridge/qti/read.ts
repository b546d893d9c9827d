import { parsePoints } from '../../../grading/points'
import { FormatRefusal } from '../../refusal'
import { descend, elementsBelow, textAt, type XmlElement } from '../../xml'
import {
  fieldOf,
  type Condition,
  type Feedback,
  type Field,
  type Material,
  type Outcome,
  type Question,
  type QuestionSet,
  type QuestionType,
  type Response,
  type Rule,
  type Section,
} from './model'

// Element and attribute names, profiles and defaults: IMS QTI 1.2 (ASI) and its Common Cartridge profiles, from memory.
const profiles: Record<string, QuestionType> = {
  'cc.multiple_choice.v0p1': 'multiple choice',
  'cc.multiple_response.v0p1': 'multiple response',
  'cc.true_false.v0p1': 'true or false',
  'cc.fib.v0p1': 'fill in',
  'cc.pattern_match.v0p1': 'pattern match',
  'cc.essay.v0p1': 'essay',
}
/** Whether a profile is one of the Common Cartridge's. */
export const isKnownProfile = (profile: string): boolean => Object.hasOwn(profiles, profile.toLowerCase())
/** Elements that only arrange what is in them. */
const arrangement = new Set([
  'flow',
  'flow_mat',
  'flow_label',
  'material',
  'solutionmaterial',
  'hintmaterial',
])

const named = (element: XmlElement | undefined, ...names: string[]): XmlElement[] =>
  element?.children.filter(child => names.includes(child.name)) ?? []
/** Children of these names, looking through what only arranges. */
function through(
  element: XmlElement | undefined,
  names: readonly string[],
  into: XmlElement[] = [],
): XmlElement[] {
  for (const child of element?.children ?? []) {
    if (names.includes(child.name)) into.push(child)
    else if (arrangement.has(child.name)) through(child, names, into)
  }
  return into
}
const materialOf = (element: XmlElement | undefined): Material[] =>
  through(element, ['mattext']).map(text => ({
    html: text.attributes.texttype?.toLowerCase() === 'text/html',
    text: text.text,
  }))
const fieldsOf = (element: XmlElement | undefined): Field[] =>
  named(element, 'qtimetadata')
    .flatMap(part => named(part, 'qtimetadatafield'))
    .map(field => [textAt(field, 'fieldlabel') ?? '', textAt(field, 'fieldentry') ?? ''] as const)
const number = (text: string | undefined): number | null =>
  text !== undefined && /^\d{1,6}$/.test(text.trim()) ? Number(text) : null
const yes = (text: string | undefined): boolean => /^yes$/i.test(text ?? '')

function responseOf(element: XmlElement): Response {
  const ident = element.attributes.ident ?? ''
  const choice = descend(element, 'render_choice')
  if (choice)
    return {
      kind: 'choice',
      ident,
      several: /^multiple$/i.test(element.attributes.rcardinality ?? ''),
      shuffle: yes(choice.attributes.shuffle),
      choices: through(choice, ['response_label']).map(label => ({
        ident: label.attributes.ident ?? '',
        material: materialOf(label),
      })),
    }
  const fib = descend(element, 'render_fib')
  return {
    kind: 'text',
    ident,
    rows: number(fib?.attributes.rows),
    columns: number(fib?.attributes.columns),
    label: descend(fib, 'response_label')?.attributes.ident ?? null,
    fibType: fib?.attributes.fibtype ?? null,
  }
}

const tests: Record<string, 'equals' | 'contains' | 'all' | 'any' | 'none'> = {
  varequal: 'equals',
  varsubstring: 'contains',
  and: 'all',
  or: 'any',
  not: 'none',
}
function conditionOf(element: XmlElement): Condition | null {
  if (element.name === 'other') return { test: 'anything' }
  const test = tests[element.name]
  if (!test) return null
  if (test === 'equals' || test === 'contains')
    return {
      test,
      response: element.attributes.respident ?? '',
      value: element.text.trim(),
      caseMatters: yes(element.attributes.case),
    }
  return { test, of: element.children.map(conditionOf).filter(condition => condition !== null) }
}
const ruleOf = (element: XmlElement): Rule => ({
  title: element.attributes.title ?? null,
  goesOn: yes(element.attributes.continue),
  conditions:
    descend(element, 'conditionvar')
      ?.children.map(conditionOf)
      .filter(condition => condition !== null) ?? [],
  sets: named(element, 'setvar').map(set => ({
    variable: set.attributes.varname ?? 'SCORE',
    action: set.attributes.action ?? 'Set',
    value: set.text.trim(),
  })),
  shows: named(element, 'displayfeedback').map(shown => ({
    type: shown.attributes.feedbacktype ?? 'Response',
    feedback: shown.attributes.linkrefid ?? '',
  })),
})
const outcomeOf = (element: XmlElement): Outcome => ({
  variable: element.attributes.varname ?? 'SCORE',
  type: element.attributes.vartype ?? 'Integer',
  least: element.attributes.minvalue ?? null,
  most: element.attributes.maxvalue ?? null,
  start: element.attributes.defaultval ?? null,
})
function feedbackOf(element: XmlElement): Feedback {
  const part = descend(element, 'solution') ?? descend(element, 'hint')
  return {
    ident: element.attributes.ident ?? '',
    kind: part ? (part.name as 'solution' | 'hint') : 'response',
    material: materialOf(part ?? element),
  }
}

/** By its profile, else by what it asks for. */
function typeOf(profile: string | null, responses: readonly Response[]): QuestionType {
  const stated = profiles[profile?.toLowerCase() ?? '']
  if (stated) return stated
  const [first] = responses
  if (!first || responses.length > 1) return 'other'
  return first.kind === 'text' ? 'other' : first.several ? 'multiple response' : 'multiple choice'
}

function questionOf(element: XmlElement): Question {
  const metadata = fieldsOf(descend(element, 'itemmetadata'))
  const presentation = descend(element, 'presentation')
  const responses = through(presentation, ['response_lid', 'response_str']).map(responseOf)
  return {
    ident: element.attributes.ident ?? '',
    title: element.attributes.title ?? null,
    type: typeOf(fieldOf(metadata, 'cc_profile'), responses),
    points: parsePoints(fieldOf(metadata, 'cc_weighting') ?? '1') ?? 10_000,
    metadata,
    prompt: materialOf(presentation),
    responses,
    outcomes: elementsBelow(descend(element, 'resprocessing') ?? { ...element, children: [] })
      .filter(child => child.name === 'decvar')
      .map(outcomeOf),
    rules: named(descend(element, 'resprocessing'), 'respcondition').map(ruleOf),
    feedback: named(element, 'itemfeedback').map(feedbackOf),
  }
}
const sectionOf = (element: XmlElement): Section => ({
  ident: element.attributes.ident ?? '',
  title: element.attributes.title ?? null,
  metadata: fieldsOf(element),
  parts: named(element, 'section', 'item').map(child =>
    child.name === 'section' ? sectionOf(child) : questionOf(child),
  ),
})

const inProfile = new Set([
  'response_lid',
  'response_str',
  'response_label',
  'render_choice',
  'render_fib',
  'mattext',
  'material',
  'material_ref',
])
/** Elements of the questions that the profiles do not have, by name: they stay in the XML that is kept, and are not shown. */
export function beyondProfile(root: XmlElement): string[] {
  const names = new Set<string>()
  for (const { name } of elementsBelow(root))
    if (!inProfile.has(name) && /^(response_|render_|mat)/.test(name)) names.add(name)
  return [...names]
}

/** Reads a QTI 1.2 assessment or question bank. Points of a question are its `cc_weighting`, 1 where it states none. @throws FormatRefusal where it is neither. */
export function readQuestions(where: string, root: XmlElement): QuestionSet {
  if (root.name !== 'questestinterop')
    throw new FormatRefusal('starts-otherwise', where, { found: root.name, wanted: 'questestinterop' })
  const assessment = descend(root, 'assessment')
  const bank = descend(root, 'objectbank')
  if (assessment)
    return {
      kind: 'assessment',
      ident: assessment.attributes.ident ?? '',
      title: assessment.attributes.title ?? null,
      metadata: fieldsOf(assessment),
      rubric: [...named(assessment, 'rubric', 'presentation_material')].flatMap(materialOf),
      sections: [...named(assessment, 'section').map(sectionOf), ...loose(assessment)],
    }
  if (bank)
    return {
      kind: 'bank',
      ident: bank.attributes.ident ?? '',
      title: bank.attributes.title ?? null,
      metadata: fieldsOf(bank),
      rubric: [],
      sections: [...loose(bank), ...named(bank, 'section').map(sectionOf)],
    }
  throw new FormatRefusal('no-questions', where)
}
/** Questions that stand in no section. */
const loose = (element: XmlElement): Section[] => {
  const parts = named(element, 'item').map(questionOf)
  return parts.length === 0 ? [] : [{ ident: '', title: null, metadata: [], parts }]
}
