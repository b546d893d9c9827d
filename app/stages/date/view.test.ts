import { mount } from '@vue/test-utils'
import { nextTick, ref } from 'vue'
import { describe, expect, it } from 'vitest'
import { dayOf } from '~~/core/calendar/day'
import { termCalendar } from '~~/core/calendar/schema'
import { compileTerm } from '~~/core/calendar/term'
import { planDates } from '~~/core/dates/plan'
import { ruleSetSchema } from '~~/core/dates/rule'
import { item } from '~~/tests/support/outline'
import { wall } from '~~/tests/support/wall'
import { useRoute } from '~/testing/address'
import { crossingItems, crossingText, densityOf, threadsAtMost, threadsOf } from './crossing'
import { axisOf, panned, sourceY, targetY, wholePicture, zoomed } from './crossing-axes'
import { ledgerItem, ledgerRows, type LedgerItem } from './ledger'
import { useSelection } from './selection'
import { inOrder, itemsInView } from './view'

const autumn = compileTerm(
  termCalendar.parse({ timeZone: 'UTC', classes: { from: '2026-09-02', to: '2026-12-04' } }),
)
const summer = compileTerm(
  termCalendar.parse({ timeZone: 'UTC', classes: { from: '2027-05-10', to: '2027-06-25' } }),
)
/** A ledger of quizzes and assignments in turn, due on given days. */
function ledgerOf(dues: (string | null)[], rules: object = {}): LedgerItem[] {
  const nodes = dues.map((due, at) =>
    item(`i${at}`, {
      title: `Lab sheet ${at + 1}`,
      kind: at % 2 === 0 ? 'quiz' : 'assignment',
      unit: at < 2 ? 'u1' : 'u2',
      due: due === null ? null : wall(`${due}T23:59`),
    }),
  )
  const { items } = planDates({
    source: autumn,
    target: summer,
    sourceMeetings: [],
    targetMeetings: [],
    zone: { timeZone: 'UTC', years: { from: 1970, to: 2199 }, offset: 0, transitions: [] },
    rules: ruleSetSchema.parse(rules),
    items: nodes.map(node => ({ ...node, id: node.lineage, kind: node.kind ?? '' })),
  })
  return nodes.map((node, at) => ledgerItem(node, items[at]!))
}
const ids = (items: readonly { lineage: string }[]): string[] => items.map(each => each.lineage)
const everything = { find: '', kind: '', unit: '', onlySettle: false }

describe('what the ledger shows', () => {
  const items = ledgerOf(['2026-09-11', '2026-12-01', '2026-10-02', null])
  it('by words of the title or the unit, by kind, by unit, or only what is to settle', () => {
    const titles = (unit: string | null): string => (unit === 'u2' ? 'Tidal streams' : 'Bearings')
    const shown = (view: object) => ids(itemsInView(items, { ...everything, ...view }, titles))
    expect(shown({})).toEqual(['i0', 'i1', 'i2', 'i3'])
    expect(shown({ find: 'SHEET streams' })).toEqual(['i2', 'i3'])
    expect(shown({ kind: 'quiz', unit: 'u1' })).toEqual(['i0'])
    expect(shown({ onlySettle: true })).toEqual(['i1'])
    expect(shown({ find: 'nothing' })).toEqual([])
  })
  it('by a column; what has no date comes last, what is equal stays in the course’s order', () => {
    expect(ids(inOrder(items, 'was'))).toEqual(['i0', 'i2', 'i1', 'i3'])
    expect(ids(inOrder(items, 'opens'))).toEqual(['i0', 'i1', 'i2', 'i3'])
    expect(ids(inOrder(items, 'how'))).toEqual(['i1', 'i0', 'i2', 'i3'])
    const ten = ledgerOf(Array.from({ length: 11 }, () => null))
    expect(ids(inOrder([...ten].reverse(), 'item')).slice(1, 3)).toEqual(['i1', 'i2'])
  })
  it('a head for each unit counts what has no date', () => {
    const rows = ledgerRows([item('u1', { type: 'unit', title: 'Bearings' })], items, false)
    expect(rows[0]).toMatchObject({ type: 'unit', title: 'Bearings', dated: 2, undated: 0 })
    expect(rows.at(-1)?.lineage).toBe('i2')
  })
})

describe('choosing rows', () => {
  const rows = ref(['a', 'b', 'c', 'd', 'e'].map(lineage => ({ lineage })))
  function selection() {
    let made: ReturnType<typeof useSelection> | undefined
    mount({ setup: () => (made = useSelection(rows, () => {})) && (() => null) })
    return made!
  }
  it('a range grows and shrinks from where one stood, and leaves what was chosen before', () => {
    const { select, toggle, extend, chosen } = selection()
    toggle('e')
    select('b')
    extend(1)
    extend(1)
    expect([...chosen.value].sort()).toEqual(['b', 'c', 'd', 'e'])
    extend(-1)
    expect([...chosen.value].sort()).toEqual(['b', 'c', 'e'])
    toggle('c')
    expect([...chosen.value].sort()).toEqual(['b', 'e'])
  })
  it('the row one looks at is in the address, whatever else changes there at once', async () => {
    const { select, nextWhere } = selection()
    select('d')
    nextWhere(row => row.lineage < 'c')
    await nextTick()
    await nextTick()
    expect(useRoute().query.item).toBe('a')
  })
})

describe('the crossing', () => {
  const width = 900
  const axes = (view = wholePicture) => ({
    source: axisOf(autumn, { y: sourceY, below: false, share: 1 }, width, view),
    target: axisOf(summer, { y: targetY, below: true, share: 1 }, width, view),
  })
  const all = { width, selected: null, crossing: new Set<LedgerItem>() }
  it('draws what comes to the same place once, and only what is in sight', () => {
    const items = ledgerOf(['2026-09-11', '2026-10-02', '2026-09-11'])
    const threads = threadsOf(items, axes(), all)
    expect(threads.map(thread => thread.items.length).sort()).toEqual([1, 2])
    const first = zoomed(wholePicture, 0.2, 0)
    expect(threadsOf(items, axes(first), all).flatMap(thread => ids(thread.items))).toEqual(['i0', 'i2'])
  })
  it('looks closer around a place, and never beyond the ends', () => {
    const close = zoomed(wholePicture, 0.25, 0.5)
    expect([close.from, close.to]).toEqual([0.375, 0.625])
    expect(panned(close, 99)).toMatchObject({ from: 0.75, to: 1 })
    expect(zoomed(panned(close, -99), 8, 0)).toMatchObject({ from: 0, to: 1 })
  })
  it('says what goes back and what is too much', () => {
    const items = ledgerOf(['2026-09-11', '2026-09-18', '2026-09-25'], {
      itemRules: { i0: { method: 'set', due: '2027-06-11T23:59' } },
    })
    expect(ids([...crossingItems(items)])).toEqual(['i0'])
    expect(crossingText(1, [{ first: dayOf('2027-06-14'), ids: ['a', 'b', 'c', 'd'] }])).toBe(
      '1 item comes in another order; 1 day holds too much, Mon 14 Jun most: 4 due.',
    )
    expect(crossingText(0, [])).toBe('No item changes its order; no day holds too much.')
    expect(crossingText(0, null)).toBe('No item changes its order.')
  })
  it('of thousands shows how many a day holds', () => {
    const days = Array.from({ length: 90 }, (_, day) => new Date(Date.UTC(2026, 8, 2 + day)))
    const items = ledgerOf([...days, ...days, ...days, ...days].map(day => day.toISOString().slice(0, 10)))
    const threads = threadsOf(items, axes(), all)
    expect(threads.length).toBeLessThan(threadsAtMost)
    const { bars, strings } = densityOf(items, threads, axes())
    expect(bars.filter(bar => bar.key.startsWith(`${sourceY} `)).map(bar => bar.count)).toEqual(
      Array.from({ length: 90 }, () => 4),
    )
    const landed = bars.filter(bar => bar.key.startsWith(`${targetY} `))
    expect(landed.reduce((sum, bar) => sum + bar.count, 0)).toBe(360)
    expect(strings.map(each => each.outcome).sort()).toEqual(['settle', 'straight'])
  })
})
