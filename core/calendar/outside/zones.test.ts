import fc from 'fast-check'
import { Temporal } from 'temporal-polyfill'
import { describe, expect, it } from 'vitest'
import { isTimeZone, zoneRules } from '../../../server/calendars/zones'
import { dayOf, wallOf } from '../day'
import { instantOf, irregularAt, wallMinutes } from '../zone'

// Half an hour (Lord Howe), three quarters (Chatham), the southern hemisphere, winter time as the exception (Dublin), rules that
// changed (Istanbul 2016, Tehran 2022, Cairo 2023, Moscow 2014), Ramadan (Casablanca), a day that never was (Apia 2011), none at all (Kolkata).
const zones: [zone: string, from: number, to: number][] = [
  ['America/Halifax', 2024, 2030],
  ['America/St_Johns', 2005, 2012],
  ['Europe/Dublin', 2024, 2030],
  ['Europe/Berlin', 2024, 2030],
  ['Australia/Lord_Howe', 2024, 2030],
  ['Australia/Adelaide', 2024, 2030],
  ['Pacific/Chatham', 2024, 2030],
  ['America/Santiago', 2018, 2028],
  ['Europe/Istanbul', 2013, 2018],
  ['Asia/Tehran', 2020, 2024],
  ['Africa/Cairo', 2021, 2026],
  ['Europe/Moscow', 2009, 2016],
  ['Africa/Casablanca', 2022, 2027],
  ['Pacific/Apia', 2010, 2013],
  ['Asia/Kolkata', 2024, 2030],
]

/** What Temporal says of a wall-clock time. */
function byTemporal(
  timeZone: string,
  wall: string,
): { instant: number; kind: 'gap' | 'overlap' | null; minutes: number } {
  const plain = Temporal.PlainDateTime.from(wall)
  const [earlier, later, compatible] = (['earlier', 'later', 'compatible'] as const).map(disambiguation =>
    plain.toZonedDateTime(timeZone, { disambiguation }),
  )
  const apart = (later!.epochMilliseconds - earlier!.epochMilliseconds) / 60_000
  const kind = apart === 0 ? null : compatible!.toPlainDateTime().equals(plain) ? 'overlap' : 'gap'
  return { instant: compatible!.epochMilliseconds / 60_000, kind, minutes: apart }
}

const many = Number(process.env.NORTHTIDE_RUNS ?? 1)

describe.each(zones)(
  'daylight saving in %s, %i to %i, against Temporal on the IANA data',
  (timeZone, from, to) => {
    const rules = zoneRules(timeZone, { from, to })
    const first = dayOf(`${from}-01-02`)
    const last = dayOf(`${to}-12-30`)
    const nearChange =
      rules.transitions.length > 0
        ? fc
            .tuple(fc.constantFrom(...rules.transitions), fc.integer({ min: -1600, max: 1600 }))
            .map(([change, minutes]) => Math.round(change.at + change.offset + minutes))
        : fc.integer({ min: first * 1440, max: last * 1440 })
    it('finds every skipped and every doubled time, and the same instant', () => {
      fc.assert(
        fc.property(fc.oneof(nearChange, fc.integer({ min: first * 1440, max: last * 1440 })), minute => {
          if (minute < first * 1440 || minute > last * 1440) return
          const wall = wallOf(Math.floor(minute / 1440), minute - Math.floor(minute / 1440) * 1440)
          const expected = byTemporal(timeZone, wall)
          expect([wall, irregularAt(rules, wallMinutes(dayOf(wall), minute - dayOf(wall) * 1440))]).toEqual([
            wall,
            expected.kind && { kind: expected.kind, minutes: expected.minutes },
          ])
          expect(instantOf(rules, wall)).toBe(expected.instant)
        }),
        { numRuns: many * 250 },
      )
    })
    it('and ICU (Intl) shows that instant at that wall-clock time, unless it was skipped', () => {
      const format = new Intl.DateTimeFormat('sv-SE', { timeZone, dateStyle: 'short', timeStyle: 'short' })
      fc.assert(
        fc.property(fc.integer({ min: first * 1440, max: last * 1440 }), minute => {
          const day = Math.floor(minute / 1440)
          if (irregularAt(rules, minute)?.kind === 'gap') return
          const wall = wallOf(day, minute - day * 1440)
          expect(format.format(new Date(instantOf(rules, wall) * 60_000)).replace(' ', 'T')).toBe(wall)
        }),
        { numRuns: many * 60 },
      )
    })
  },
)

it('a name that is no zone is none', () => {
  expect(['Sea/Nowhere', '', '+04:00', 'Europe/Berlin ', 'UTC'].map(isTimeZone)).toEqual([
    false,
    false,
    false,
    false,
    true,
  ])
})
