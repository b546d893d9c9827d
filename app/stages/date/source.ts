import { inject, type InjectionKey } from 'vue'
import type { Meeting } from '~~/core/calendar/schema'
import type { Term } from '~~/core/calendar/term'
import type { ItemDates } from '~~/core/course/dates'
import type { OutlineNode } from '~~/core/course/outline'
import type { PlannedItem } from '~~/core/dates/plan'
import type { RuleSet } from '~~/core/dates/rule'
import type { Filed } from '~~/core/grading/periods'
import { howText, type LedgerItem } from './ledger'
import type { Ledger, LaidOver } from '../plan/planned-dates'
import { usePlan } from '../plan/store'

/** What a ledger of dates is of, and who takes what is changed in it: a plan, or a shell as it stands. Its values change. */
export interface LedgerSource {
  /** The terms that dates cross between; of a shell twice its own. Null until they are there. */
  readonly terms: { readonly source: Term; readonly target: Term } | null
  readonly ledger: Ledger | null
  readonly nodes: readonly OutlineNode[]
  readonly planned: ReadonlyMap<string, PlannedItem>
  readonly filed: ReadonlyMap<string, Filed>
  /** Where dates are held by hand by now, also before the ledger is computed anew. */
  readonly itemRules: RuleSet['itemRules']
  /** Units and items that the shell has already. */
  readonly shellNodes: readonly OutlineNode[]
  readonly meetings: readonly Meeting[]
  /** The first day on which students may enter; null: from the first day of classes. */
  readonly openFrom: string | null
  /** How many items there are. */
  readonly carried: number
  /** Another way of moving dates that is laid over this one. */
  readonly laidOver: LaidOver | null
  /** How a row came to be, in a few words. */
  readonly how: (item: LedgerItem) => string
  /** How it is called: the column that tells where dates stood before; holding dates, where that is anything to decide; letting them go. */
  readonly words: {
    readonly was: string
    readonly hold: string | null
    readonly letGo: string
    /** What rows are that want looking at. */
    readonly look: string
  }
  /** Holds dates by hand; null: lets them go. */
  holdAll: (dates: ReadonlyMap<string, ItemDates | null>) => void
  fileUnder: (lineages: readonly string[], period: string | null) => void
}
export const ledgerSource: InjectionKey<LedgerSource> = Symbol('ledger')

function planSource(): LedgerSource {
  const store = usePlan()
  return {
    get terms() {
      return store.terms
    },
    get ledger() {
      return store.ledger
    },
    get nodes() {
      return store.nodes
    },
    get planned() {
      return store.planned
    },
    get filed() {
      return store.filed
    },
    get itemRules() {
      return store.document?.dates.itemRules ?? {}
    },
    get shellNodes() {
      return store.plan?.target.nodes ?? []
    },
    get meetings() {
      return store.plan?.target.course.meetings ?? []
    },
    get openFrom() {
      const { plan, document } = store
      return plan && document ? (document.windows ?? plan.target.course.windows).openFrom : null
    },
    get carried() {
      return store.counts.carried
    },
    get laidOver() {
      return store.laidOver
    },
    how: howText,
    words: { was: 'Was due', hold: 'Hold here', letGo: 'Let go', look: 'to settle' },
    holdAll: dates => store.holdAll(dates),
    fileUnder: (lineages, period) => store.fileUnder(lineages, period),
  }
}
/** What the ledger at hand is of: what a page above gives, else the plan. */
export const useLedgerSource = (): LedgerSource => inject(ledgerSource, planSource, true)
