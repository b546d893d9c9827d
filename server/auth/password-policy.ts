import { counted } from '../../core/dates/words'
import { refuse } from '../errors/refusal'

/**
 * NIST SP 800-63B, section 5.1.1.2: length counts, nothing must be mixed, what is common or close at hand is refused. At least 12
 * characters and at most 128: OWASP ASVS 4.0.3, 2.1.1 and 2.1.2.
 */
export const passwordLength = { least: 12, most: 128 }
/** Whose password it is: their names are close at hand. */
export interface PasswordOf {
  login: string
  givenName: string
  familyName: string
}
/** The 49,000 most common passwords (of @zxcvbn-ts/language-common), read when first asked for. */
let common: Promise<ReadonlySet<string>> | undefined
const commonPasswords = (): Promise<ReadonlySet<string>> =>
  (common ??= import('@zxcvbn-ts/language-common').then(({ dictionary }) => new Set(dictionary.passwords)))

/** `abcabcabcabc`, `aaaaaaaaaaaa`: a few characters over and over. */
const isRepeated = (text: string): boolean => /^(.{1,4}?)\1+.{0,3}$/su.test(text)
/** `abcdefghijkl`, `987654321012`: each character the neighbour of the one before, but for a step or two. */
function isSequence(text: string): boolean {
  const points = [...text].map(character => character.codePointAt(0) ?? 0)
  const steps = points.slice(1).map((point, at) => Math.abs(point - (points[at] ?? 0)))
  return steps.filter(step => step !== 1).length <= 2
}
/** What is left of a text without figures and signs at its ends. */
const core = (text: string): string => text.replace(/^[^\p{L}]+|[^\p{L}]+$/gu, '')

/** Why a password may not be used; null: it may. */
export async function passwordFault(password: string, of: PasswordOf): Promise<string | null> {
  const length = [...password].length
  if (length < passwordLength.least)
    return `It has ${counted(length, 'character')}. At least ${passwordLength.least} are needed.`
  if (length > passwordLength.most) return `At most ${passwordLength.most} characters.`
  const text = password.normalize('NFKC').toLowerCase()
  if (isRepeated(text) || isSequence(text))
    return 'A few characters over and over, or in their order, are guessed first.'
  const known = await commonPasswords()
  if (known.has(text) || known.has(core(text)))
    return 'It is on the list of common passwords, or is one of them with figures added.'
  const near = [of.login, of.givenName, of.familyName, `${of.givenName}${of.familyName}`, 'northtide']
  const rest = core(text).replaceAll(/[^\p{L}]/gu, '')
  const isNear = near.some(name => {
    const word = name.toLowerCase().replaceAll(/[^\p{L}]/gu, '')
    return word.length > 2 && rest.replaceAll(word, '').length < 6 && rest.includes(word)
  })
  return isNear ? 'It is little more than a name that others know.' : null
}
/** @throws Refusal naming the field, where a password may not be used */
export async function checkPassword(password: string, of: PasswordOf): Promise<void> {
  const fault = await passwordFault(password, of)
  if (fault) throw refuse('password-refused', { fault })
}
