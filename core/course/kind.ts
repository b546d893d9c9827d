/** What the parts of a Common Cartridge are called where it is shown what was found in a file. */
export const cartridgeKinds = [
  'heading',
  'page',
  'file',
  'weblink',
  'topic',
  'assessment',
  'bank',
  'lti',
  'assignment',
] as const
export type CartridgeKind = (typeof cartridgeKinds)[number]

/** A kind of item: everything that differs from kind to kind. An exam is a mark on a quiz or an assignment, not a kind. */
export interface ItemKindDefinition {
  readonly words: readonly [one: string, many: string]
  /** Its shape and colour on screen, always with the word at hand (`app/ui/KindMark.vue`). */
  readonly mark: 'work' | 'quiz' | 'discussion' | 'page'
  /** What it is in a Common Cartridge; null where the standard has nothing of the kind. */
  readonly inCartridge: CartridgeKind | null
  /** Whether a course JSON may say that an item is of this kind. */
  readonly inCourseJson: boolean
  /** What there is to read of it: its text or file, its questions, or nothing but its title. */
  readonly shows: 'text' | 'questions' | 'title'
  /** Whether students work on it, so that it has a date by which, settings, and traces of their work. Common practice, no source. */
  readonly workedOn: boolean
  /** Whether one can be made in the application: it needs nothing but a title, a text and dates to begin with. */
  readonly canBeMade: boolean
  /** Whether one can be marked as an exam. */
  readonly canBeExam: boolean
  /** Only staff ever see it: it is read as hidden. */
  readonly staffOnly?: true
}
export const itemKind = (definition: ItemKindDefinition): ItemKindDefinition => definition
