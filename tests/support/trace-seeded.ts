import { phoneEnds, type TracedPerson } from '../../core/student-data/traces/people'
import { plainKey, type Plant } from './trace-corpus'
import { tracePlacesOf } from './trace-places'

/** Numbers that seem thrown, and are the same each time (Park and Miller, 1988). */
export function thrown(seed: number): (below: number) => number {
  let now = seed
  return below => (now = (now * 48_271) % 2_147_483_647) % below
}
const given =
  'Signe Ottoline Tomasz Björn Aoife Xiadani Grace Miles Kwame Yūki Zdeněk Mehmet Penny Luc-André Inés Fatou José_Luis Ríona Mark Dilys'
    .split(' ')
    .map(name => name.replace('_', ' '))
const family =
  'Haverkamp Żuławska Lake Reed van_der_Meer O’Dwyer Sørensen Castellanos-Ruiz Field Achterberg Nkemelu D’Amato Thorne-Lyle Yıldız St._Clair MacIntyre Frost Ito Wu Brzeziński'
    .split(' ')
    .map(name => name.replaceAll('_', ' '))
const plainly = (name: string): string =>
  name
    .normalize('NFKD')
    .replace(/\p{M}/gu, '')
    .replace(/[żøłı’. -]/gi, letter => ({ ø: 'o', ł: 'l', ı: 'i' })[letter.toLowerCase()] ?? '')
interface Seeded {
  readonly person: TracedPerson
  readonly phone: string
}
/** Twenty people whom nobody thought of when the rules were made. */
export const seededPeople: readonly Seeded[] = given.map((name, at) => {
  const last = family[(at * 7 + 3) % family.length] ?? ''
  const phone = `782-555-0${String(110 + at * 3)}`
  return {
    phone,
    person: {
      id: `seeded ${at}`,
      given: name,
      middle: null,
      family: last,
      nickname: null,
      email: `${plainly(name)}.${plainly(last)}${at}@students.port-ellery.example`.toLowerCase(),
      key: `pe-26-${1000 + at * 37}`,
      number: `S2104${String(100 + at * 13)}`,
      userName: null,
      phones: phoneEnds(phone).map(plainKey),
    },
  }
})
type Form = (who: Seeded) => string
const inner = (text: string, letter: string): string => {
  const at = Math.ceil(text.length / 3)
  return text.slice(0, at) + letter + text.slice(at)
}
/** Forms in which somebody is written among words, and those in which programs and packages name them. */
const written: Readonly<Record<string, Form>> = {
  'full name': ({ person }) => `${person.given} ${person.family}`,
  'family first': ({ person }) => `${person.family}, ${person.given}`,
  'in capitals': ({ person }) => `${person.family.toUpperCase()} ${person.given}`,
  initials: ({ person }) => `${person.given.slice(0, 1)}. ${person.family}`,
  'soft hyphen': ({ person }) => `${person.given} ${inner(person.family, '\u00ad')}`,
  'zero-width joiner': ({ person }) => `${inner(person.given, '\u200d')} ${person.family}`,
  number: ({ person }) => person.number ?? '',
  'number with dashes': ({ person }) => (person.number ?? '').replace(/^(S)(\d{3})/, '$1-$2-'),
  'number, no-break hyphen': ({ person }) => (person.number ?? '').replace('S', 'S\u2011'),
  'number without its letter': ({ person }) => (person.number ?? '').slice(1),
  address: ({ person }) => person.email ?? '',
  phone: ({ phone }) => phone,
  'phone, brackets': ({ phone }) => phone.replace(/^(\d{3})-/, '($1) '),
  'phone, dots': ({ phone }) => `+1.${phone.replaceAll('-', '.')}`,
  title: ({ person }) => `Ms. ${person.family}`,
  'family name alone': ({ person }) => person.family,
  'first name alone': ({ person }) => person.given,
}
const named: Readonly<Record<string, Form>> = {
  'run together': ({ person }) => plainly(person.family) + plainly(person.given),
  'run together, small': ({ person }) => (plainly(person.family) + plainly(person.given)).toLowerCase(),
  'with a line': ({ person }) => `${plainly(person.family)}_${plainly(person.given)}`.toLowerCase(),
  'initial and family': ({ person }) =>
    (plainly(person.given).slice(0, 1) + plainly(person.family)).toLowerCase(),
  key: ({ person }) => person.key,
  number: ({ person }) => person.number ?? '',
}
const frames = [
  'We owe the chart to [] and the weather.',
  'As [] found, the current turns early here.',
  'Nobody but [] had the key.',
  'In the log of [] the fog comes last.',
  'Write to [] before noon.',
  'The lamp was trimmed by [], then the watch ended.',
  'Thanks go to [] for the drawing',
  'Look at how [] did it.',
]
const codePlaces = new Set(['identifier', 'file name', 'name of a file', 'link', 'address'])
/** So many traces planted by chance: where, in which form and in which sentence. The same for the same seed. */
export function seededPlants(seed: number, count: number): Plant[] {
  const next = thrown(seed)
  const pick = <T>(list: readonly T[]): T => list[next(list.length)] as T
  const places = Object.entries(tracePlacesOf).flatMap(([where, own]) =>
    Object.keys(own).map(place => [where, place] as const),
  )
  return Array.from({ length: count }, (_, n) => {
    // Each place in its turn, so that none is left out.
    const [where, place] = places[n % places.length] ?? ['', '']
    const forms = codePlaces.has(place) ? named : written
    const form = pick(Object.keys(forms))
    const trace = forms[form]?.(pick(seededPeople)) ?? ''
    const text = codePlaces.has(place) ? `${trace}_${next(90) + 10}` : pick(frames).replace('[]', trace)
    return { where, place, form, text, trace }
  })
}
