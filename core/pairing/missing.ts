import { present } from '../present'
/** Desks that can help where a shell is not there. */
export const desks = ['registrar', 'school', 'help'] as const
export type Desk = (typeof desks)[number]
export const missingReasons = [
  'not-made',
  'fault',
  'cancelled',
  'not-listed',
  'not-main',
  'hidden',
  'there',
] as const
export type MissingReason = (typeof missingReasons)[number]

/** What is known of the sections of a course in a term. `role`: what the person who asks is on it. */
export interface SectionFacts {
  readonly section: string
  readonly missing: boolean
  readonly role: 'instructor' | 'assistant' | null
  readonly primary: boolean
  readonly hidden: boolean
}
export interface Missing {
  reason: MissingReason
  /** Null where nobody needs to be asked. */ desk: Desk | null
  /** The section it is about, where there is one. */ section: string | null
}

/**
 * Why a person does not find a shell, and who can help. A section that they do have is told before one that they do not: it may be the one
 * they mean. `registrarFails`: the registrar's list could not be had the last time. Which desk does what is common practice.
 */
export function whyMissing(sections: readonly SectionFacts[], registrarFails: boolean): Missing {
  if (sections.length === 0)
    return registrarFails
      ? { reason: 'fault', desk: 'help', section: null }
      : { reason: 'not-made', desk: 'registrar', section: null }
  const say = (reason: MissingReason, desk: Desk | null, found: SectionFacts): Missing => ({
    reason,
    desk,
    section: found.section,
  })
  const mine = sections.filter(entry => entry.role !== null)
  const live = mine.filter(entry => !entry.missing)
  const hidden = live.find(entry => entry.hidden)
  const main = live.find(entry => entry.role === 'instructor' && entry.primary)
  const listed = live[0]
  if (main && !main.hidden) return say('there', null, main)
  if (hidden) return say('hidden', null, hidden)
  if (listed) return say('not-main', 'school', listed)
  if (mine[0]) return say('cancelled', 'registrar', mine[0])
  const free = sections.find(entry => !entry.missing)
  return free ? say('not-listed', 'school', free) : say('cancelled', 'registrar', present(sections[0]))
}
