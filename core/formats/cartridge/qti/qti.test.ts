import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { readLimits } from '../../limits'
import { parseXml, type XmlElement } from '../../xml'
import { questionsOf, rightAnswers, type QuestionSet } from './model'
import { readQuestions } from './read'
import { writeQuestions } from './write'

const parse = (xml: string) => parseXml('q.xml', xml, readLimits)
const read = (xml: string): QuestionSet => readQuestions('q.xml', parse(xml))
const qti = (inner: string): string =>
  `<?xml version="1.0"?><questestinterop xmlns="http://www.imsglobal.org/xsd/ims_qtiasiv1p2">${inner}</questestinterop>`
const profile = (name: string, points = ''): string =>
  `<itemmetadata><qtimetadata><qtimetadatafield><fieldlabel>cc_profile</fieldlabel><fieldentry>cc.${name}.v0p1</fieldentry></qtimetadatafield>${points && `<qtimetadatafield><fieldlabel>cc_weighting</fieldlabel><fieldentry>${points}</fieldentry></qtimetadatafield>`}</qtimetadata></itemmetadata>`
const text = (words: string, html = false): string =>
  `<material><mattext texttype="text/${html ? 'html' : 'plain'}">${words}</mattext></material>`
const choices = (several: boolean): string =>
  `<response_lid ident="r" rcardinality="${several ? 'Multiple' : 'Single'}"><render_choice shuffle="No">${['a', 'b', 'c'].map(id => `<response_label ident="${id}">${text(id.toUpperCase())}</response_label>`).join('')}</render_choice></response_lid>`
const outcomes =
  '<outcomes><decvar varname="SCORE" vartype="Decimal" minvalue="0" maxvalue="100"/></outcomes>'
const rule = (condition: string, shows = '', goesOn = 'No'): string =>
  `<respcondition continue="${goesOn}"><conditionvar>${condition}</conditionvar><setvar action="Set" varname="SCORE">100</setvar>${shows}</respcondition>`
const feedback = (ident: string, words: string): string =>
  `<itemfeedback ident="${ident}">${text(words)}</itemfeedback>`

// One question of each type of the Common Cartridge profiles of QTI 1.2 (made by hand; element names and profiles from memory).
const all =
  qti(`<assessment ident="A" title="Check &amp; go"><qtimetadata><qtimetadatafield><fieldlabel>cc_profile</fieldlabel><fieldentry>cc.exam.v0p1</fieldentry></qtimetadatafield><qtimetadatafield><fieldlabel>qmd_timelimit</fieldlabel><fieldentry>30</fieldentry></qtimetadatafield></qtimetadata>
<rubric>${text('Read first.')}</rubric><section ident="root_section">
<item ident="mc" title="One">${profile('multiple_choice', '2')}<presentation>${text('&lt;b&gt;Which?&lt;/b&gt;', true)}${choices(false)}</presentation><resprocessing>${outcomes}<respcondition continue="Yes"><conditionvar><other/></conditionvar><displayfeedback feedbacktype="Response" linkrefid="general"/></respcondition>${rule('<varequal respident="r">b</varequal>', '<displayfeedback feedbacktype="Response" linkrefid="good"/>')}</resprocessing>${feedback('general', 'Think.')}${feedback('good', 'Yes.')}<itemfeedback ident="s"><solution><solutionmaterial>${text('B.')}</solutionmaterial></solution></itemfeedback><itemfeedback ident="h"><hint><hintmaterial>${text('Not A.')}</hintmaterial></hint></itemfeedback></item>
<item ident="mr">${profile('multiple_response')}<presentation>${text('Which ones?')}${choices(true)}</presentation><resprocessing>${outcomes}${rule('<and><varequal respident="r">a</varequal><not><varequal respident="r">b</varequal></not><varequal respident="r">c</varequal></and>')}</resprocessing></item>
<section ident="inner" title="More"><item ident="tf">${profile('true_false')}<presentation>${text('So?')}${choices(false)}</presentation><resprocessing>${outcomes}${rule('<varequal respident="r">a</varequal>')}</resprocessing></item></section>
<item ident="fi">${profile('fib', '0.5')}<presentation>${text('How high?')}<response_str ident="t" rcardinality="Single"><render_fib fibtype="String" rows="1" columns="20"/></response_str></presentation><resprocessing>${outcomes}${rule('<varequal respident="t" case="Yes">Spring</varequal>')}${rule('<varequal respident="t">neap</varequal>')}</resprocessing></item>
<item ident="pm">${profile('pattern_match')}<presentation>${text('Say it.')}<response_str ident="t" rcardinality="Single"><render_fib/></response_str></presentation><resprocessing>${outcomes}${rule('<varsubstring respident="t">tide</varsubstring>')}</resprocessing></item>
<item ident="es">${profile('essay', '10')}<presentation>${text('Why?')}<response_str ident="t" rcardinality="Single"><render_fib rows="15" columns="60"><response_label ident="l"/></render_fib></response_str></presentation></item>
</section></assessment>`)

/** What an XML document says, whatever its layout: names, attributes but for those that say the default, text but for the blanks between elements. */
function meaning(element: XmlElement): unknown {
  const defaults: Record<string, string> = {
    continue: 'No',
    case: 'No',
    shuffle: 'No',
    rcardinality: 'Single',
  }
  const attributes = Object.entries(element.attributes)
    .filter(([name, value]) => name !== 'xmlns' && defaults[name] !== value)
    .sort(([a], [b]) => (a < b ? -1 : 1))
  return [
    element.name,
    attributes,
    element.children.length > 0 ? element.children.map(meaning) : element.text,
  ]
}

describe('QTI 1.2 of Common Cartridge', () => {
  it('reads the six types with points, feedback and what is right', () => {
    const set = read(all)
    const questions = [...questionsOf(set.sections)]
    expect(
      questions.map(question => [question.ident, question.type, question.points, rightAnswers(question)]),
    ).toEqual([
      ['mc', 'multiple choice', 20_000, [{ response: 'r', values: ['b'] }]],
      ['mr', 'multiple response', 10_000, [{ response: 'r', values: ['a', 'c'] }]],
      ['tf', 'true or false', 10_000, [{ response: 'r', values: ['a'] }]],
      ['fi', 'fill in', 5_000, [{ response: 't', values: ['Spring', 'neap'] }]],
      ['pm', 'pattern match', 10_000, [{ response: 't', values: ['tide'] }]],
      ['es', 'essay', 100_000, null],
    ])
    expect(questions[0]!.feedback.map(entry => [entry.kind, entry.material[0]!.text])).toEqual([
      ['response', 'Think.'],
      ['response', 'Yes.'],
      ['solution', 'B.'],
      ['hint', 'Not A.'],
    ])
    expect([questions[0]!.prompt, questions[0]!.responses[0]]).toEqual([
      [{ html: true, text: '<b>Which?</b>' }],
      expect.objectContaining({
        several: false,
        choices: expect.arrayContaining([{ ident: 'b', material: [{ html: false, text: 'B' }] }]),
      }),
    ])
    expect([set.title, set.rubric[0]!.text]).toEqual(['Check & go', 'Read first.'])
  })
  it('writes the same XML meaning back', () => {
    expect(meaning(parse(writeQuestions(read(all))))).toEqual(meaning(parse(all)))
  })
  it('looks through what only arranges, and takes a type from what is asked where no profile is named', () => {
    const [question] = questionsOf(
      read(
        qti(
          `<objectbank ident="b"><item ident="1"><presentation><flow><flow_mat>${text('Q')}</flow_mat>${choices(true)}</flow></presentation></item></objectbank>`,
        ),
      ).sections,
    )
    expect([question!.type, question!.prompt[0]!.text, question!.points]).toEqual([
      'multiple response',
      'Q',
      10_000,
    ])
    expect(() => read(qti('<nothing/>'))).toThrow('q.xml: holds neither an <assessment> nor an <objectbank>')
  })
  it('gives back any set of questions after writing and reading', () => {
    const word = fc
      .string({ unit: 'grapheme', maxLength: 12 })
      .map(value => value.replace(/[\p{Cc}\p{Cs}\uFFFE\uFFFF]/gu, ''))
    const ident = fc.stringMatching(/^[a-z][a-z0-9]{0,5}$/)
    const material = fc.array(fc.record({ html: fc.boolean(), text: word }), { maxLength: 2 })
    const condition = fc.letrec(tie => ({
      leaf: fc.oneof(
        fc.record({
          test: fc.constantFrom('equals' as const, 'contains' as const),
          response: ident,
          value: word.map(value => value.trim()),
          caseMatters: fc.boolean(),
        }),
        fc.constant({ test: 'anything' as const }),
      ),
      node: fc.oneof(
        { depthSize: 'small' },
        tie('leaf'),
        fc.record({
          test: fc.constantFrom('all' as const, 'any' as const, 'none' as const),
          of: fc.array(tie('node'), { maxLength: 3 }),
        }),
      ),
    })).node
    const question = fc
      .record({
        ident,
        title: fc.option(word),
        prompt: material,
        feedback: fc.array(
          fc.record({ ident, kind: fc.constantFrom('response', 'solution', 'hint'), material }),
          { maxLength: 2 },
        ),
        responses: fc.array(
          fc.oneof(
            fc.record({
              kind: fc.constant('choice'),
              ident,
              several: fc.boolean(),
              shuffle: fc.boolean(),
              choices: fc.array(fc.record({ ident, material }), { maxLength: 3 }),
            }),
            fc.record({
              kind: fc.constant('text'),
              ident,
              rows: fc.option(fc.nat(99)),
              columns: fc.option(fc.nat(99)),
              label: fc.option(ident),
              fibType: fc.option(ident),
            }),
          ),
          { maxLength: 2 },
        ),
        rules: fc.array(
          fc.record({
            title: fc.option(word),
            goesOn: fc.boolean(),
            conditions: fc.array(condition, { maxLength: 3 }),
            sets: fc.array(
              fc.record({ variable: ident, action: ident, value: word.map(value => value.trim()) }),
              { maxLength: 2 },
            ),
            shows: fc.array(fc.record({ type: ident, feedback: ident }), { maxLength: 2 }),
          }),
          { maxLength: 3 },
        ),
      })
      .map(parts => ({ ...parts, type: 'other', points: 10_000, metadata: [], outcomes: [] }))
    fc.assert(
      fc.property(fc.array(question, { maxLength: 4 }), ident, (questions, name) => {
        const set = {
          kind: 'assessment',
          ident: name,
          title: null,
          metadata: [],
          rubric: [],
          sections: [{ ident: 's', title: null, metadata: [], parts: questions }],
        } as unknown as QuestionSet
        const again = read(writeQuestions(set))
        const bare = (value: QuestionSet) =>
          JSON.parse(
            JSON.stringify(value).replace(
              /"type":"(multiple choice|multiple response|other)"/g,
              '"type":"?"',
            ),
          ) as unknown
        expect(bare(again)).toEqual(bare(set))
      }),
    )
  })
})
