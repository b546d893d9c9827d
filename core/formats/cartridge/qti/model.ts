import type { TenThousandths } from '../../../grading/points'

/** The question types of the Common Cartridge profiles of QTI 1.2; `other` is kept and shown as far as it can be. */
export const questionTypes = [
  'multiple choice',
  'multiple response',
  'true or false',
  'fill in',
  'pattern match',
  'essay',
  'other',
] as const
export type QuestionType = (typeof questionTypes)[number]

/** A piece of text: plain, or HTML. */
export interface Material {
  readonly html: boolean
  readonly text: string
}
/** A label and its entry, as metadata are given. */
export type Field = readonly [label: string, entry: string]

export interface Choice {
  readonly ident: string
  readonly material: readonly Material[]
}
/** Where an answer goes: one or several of the choices offered, or text. */
export type Response =
  | {
      readonly kind: 'choice'
      readonly ident: string
      readonly several: boolean
      readonly shuffle: boolean
      readonly choices: readonly Choice[]
    }
  | {
      readonly kind: 'text'
      readonly ident: string
      readonly rows: number | null
      readonly columns: number | null
      readonly label: string | null
      readonly fibType: string | null
    }

/** What an answer must be for a rule to hold. `equals` and `contains` name the response they look at. */
export type Condition =
  | {
      readonly test: 'equals' | 'contains'
      readonly response: string
      readonly value: string
      readonly caseMatters: boolean
    }
  | { readonly test: 'all' | 'any' | 'none'; readonly of: readonly Condition[] }
  | { readonly test: 'anything' }
export interface Outcome {
  readonly variable: string
  readonly type: string
  readonly least: string | null
  readonly most: string | null
  readonly start: string | null
}
export interface Rule {
  readonly title: string | null
  /** Whether later rules are looked at when this one holds. */
  readonly goesOn: boolean
  /** All of them must hold. */
  readonly conditions: readonly Condition[]
  readonly sets: readonly { readonly variable: string; readonly action: string; readonly value: string }[]
  readonly shows: readonly { readonly type: string; readonly feedback: string }[]
}
export interface Feedback {
  readonly ident: string
  readonly kind: 'response' | 'solution' | 'hint'
  readonly material: readonly Material[]
}

export interface Question {
  readonly ident: string
  readonly title: string | null
  readonly type: QuestionType
  readonly points: TenThousandths
  readonly metadata: readonly Field[]
  readonly prompt: readonly Material[]
  readonly responses: readonly Response[]
  readonly outcomes: readonly Outcome[]
  readonly rules: readonly Rule[]
  readonly feedback: readonly Feedback[]
}
export interface Section {
  readonly ident: string
  readonly title: string | null
  readonly metadata: readonly Field[]
  readonly parts: readonly (Section | Question)[]
}
/** A quiz with its sections, or a bank of questions (one section without a name). */
export interface QuestionSet {
  readonly kind: 'assessment' | 'bank'
  readonly ident: string
  readonly title: string | null
  readonly metadata: readonly Field[]
  /** What is said before the questions. */
  readonly rubric: readonly Material[]
  readonly sections: readonly Section[]
}

export const isSection = (part: Section | Question): part is Section => 'parts' in part
/** All questions, in order. */
export function* questionsOf(sections: readonly Section[]): Generator<Question> {
  for (const section of sections)
    for (const part of section.parts)
      if (isSection(part)) yield* questionsOf([part])
      else yield part
}
export const fieldOf = (fields: readonly Field[], label: string): string | null =>
  fields.find(([name]) => name === label)?.[1] ?? null

/** What is right: idents of choices, or texts. Of choices: those a scoring rule demands and does not forbid. Null where the rules do not say, as in an essay. */
export function rightAnswers(question: Question): { response: string; values: string[] }[] | null {
  const right = new Map<string, string[]>()
  const demanded = (condition: Condition): void => {
    if (condition.test === 'all' || condition.test === 'any') condition.of.forEach(demanded)
    else if (condition.test === 'equals' || condition.test === 'contains') {
      const values = right.get(condition.response) ?? []
      if (!values.includes(condition.value)) right.set(condition.response, [...values, condition.value])
    }
  }
  for (const rule of question.rules)
    if (rule.sets.some(set => set.variable.toUpperCase() === 'SCORE' && Number(set.value) > 0))
      rule.conditions.forEach(demanded)
  return right.size === 0 ? null : [...right].map(([response, values]) => ({ response, values }))
}
