import { escapeAttribute, escapeText } from '../../xml'
import {
  isSection,
  type Condition,
  type Feedback,
  type Field,
  type Material,
  type Question,
  type QuestionSet,
  type Response,
  type Rule,
  type Section,
} from './model'

const element = (
  name: string,
  attributes: Readonly<Record<string, string | number | null>>,
  inner: string,
): string => {
  const written = Object.entries(attributes)
    .filter(([, value]) => value !== null)
    .map(([key, value]) => ` ${key}="${escapeAttribute(String(value))}"`)
    .join('')
  return inner === '' ? `<${name}${written}/>` : `<${name}${written}>${inner}</${name}>`
}
const each = <T>(list: readonly T[], write: (entry: T) => string): string => list.map(write).join('')
const material = (texts: readonly Material[]): string =>
  each(texts, text =>
    element(
      'material',
      {},
      element('mattext', { texttype: text.html ? 'text/html' : 'text/plain' }, escapeText(text.text)),
    ),
  )
const fields = (list: readonly Field[]): string =>
  list.length === 0
    ? ''
    : element(
        'qtimetadata',
        {},
        each(list, ([label, entry]) =>
          element(
            'qtimetadatafield',
            {},
            element('fieldlabel', {}, escapeText(label)) + element('fieldentry', {}, escapeText(entry)),
          ),
        ),
      )

const response = (so: Response): string =>
  so.kind === 'choice'
    ? element(
        'response_lid',
        { ident: so.ident, rcardinality: so.several ? 'Multiple' : 'Single' },
        element(
          'render_choice',
          { shuffle: so.shuffle ? 'Yes' : 'No' },
          each(so.choices, choice =>
            element('response_label', { ident: choice.ident }, material(choice.material)),
          ),
        ),
      )
    : element(
        'response_str',
        { ident: so.ident, rcardinality: 'Single' },
        element(
          'render_fib',
          { fibtype: so.fibType, rows: so.rows, columns: so.columns },
          so.label === null ? '' : element('response_label', { ident: so.label }, ''),
        ),
      )

const groups = { all: 'and', any: 'or', none: 'not' } as const
function condition(so: Condition): string {
  if (so.test === 'anything') return '<other/>'
  if ('value' in so)
    return element(
      so.test === 'equals' ? 'varequal' : 'varsubstring',
      { respident: so.response, case: so.caseMatters ? 'Yes' : null },
      escapeText(so.value),
    )
  return element(groups[so.test], {}, each(so.of, condition))
}
const rule = (so: Rule): string =>
  element(
    'respcondition',
    { title: so.title, continue: so.goesOn ? 'Yes' : 'No' },
    element('conditionvar', {}, each(so.conditions, condition)) +
      each(so.sets, set =>
        element('setvar', { action: set.action, varname: set.variable }, escapeText(set.value)),
      ) +
      each(so.shows, shown =>
        element('displayfeedback', { feedbacktype: shown.type, linkrefid: shown.feedback }, ''),
      ),
  )
const feedback = (so: Feedback): string =>
  element(
    'itemfeedback',
    { ident: so.ident },
    so.kind === 'response'
      ? material(so.material)
      : element(so.kind, {}, element(`${so.kind}material`, {}, material(so.material))),
  )

function question(so: Question): string {
  const processing =
    element(
      'outcomes',
      {},
      each(so.outcomes, outcome =>
        element(
          'decvar',
          {
            varname: outcome.variable,
            vartype: outcome.type,
            minvalue: outcome.least,
            maxvalue: outcome.most,
            defaultval: outcome.start,
          },
          '',
        ),
      ),
    ) + each(so.rules, rule)
  return element(
    'item',
    { ident: so.ident, title: so.title },
    (so.metadata.length > 0 ? element('itemmetadata', {}, fields(so.metadata)) : '') +
      element('presentation', {}, material(so.prompt) + each(so.responses, response)) +
      (so.outcomes.length + so.rules.length > 0 ? element('resprocessing', {}, processing) : '') +
      each(so.feedback, feedback),
  )
}
const part = (so: Section | Question): string =>
  isSection(so)
    ? element('section', { ident: so.ident, title: so.title }, fields(so.metadata) + each(so.parts, part))
    : question(so)

/** Writes questions as QTI 1.2, as the Common Cartridge profiles have it; read again it gives the same. */
export function writeQuestions(set: QuestionSet): string {
  const inner =
    set.kind === 'bank'
      ? element(
          'objectbank',
          { ident: set.ident, title: set.title },
          fields(set.metadata) +
            each(set.sections, section => (section.ident === '' ? each(section.parts, part) : part(section))),
        )
      : element(
          'assessment',
          { ident: set.ident, title: set.title },
          fields(set.metadata) +
            (set.rubric.length > 0 ? element('rubric', {}, material(set.rubric)) : '') +
            each(set.sections, section => (section.ident === '' ? each(section.parts, part) : part(section))),
        )
  return `<?xml version="1.0" encoding="UTF-8"?>\n<questestinterop xmlns="http://www.imsglobal.org/xsd/ims_qtiasiv1p2">${inner}</questestinterop>\n`
}
