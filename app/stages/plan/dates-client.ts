import type { ZoneRules } from '~~/core/calendar/zone'
import { wholeCourse, type RuleScope } from '~~/core/dates/levels'
import type { MethodName } from '~~/core/dates/rule'
import type { PlanDocument } from '~~/core/plan/document'
import type { PlanReply } from '~~/shared/api/plans'
import { api } from '~/composables/api'
import { datesComputer } from '~/workers/compute'
import type { CourseSide, DatesAnswer, FromDatesWorker, ToDatesWorker, ZoneWanted } from '~/workers/messages'

type Send = (message: ToDatesWorker) => void
const sideOf = ({ course, studentData: _, ...content }: PlanReply['source']): CourseSide => ({
  ...content,
  meetings: course.meetings,
  windows: course.windows,
})
const fetchZone = ({ timeZone, years }: ZoneWanted): Promise<ZoneRules> =>
  api.get(`/zones?zone=${encodeURIComponent(timeZone)}&from=${years.from}&to=${years.to}`)

/**
 * Has dates computed off the page. Only the newest document counts: while one is being worked on, the one asked for last
 * waits, and those between are dropped. Where no worker starts, the page computes itself.
 */
export function datesClient(answered: (answer: DatesAnswer) => void) {
  let send: Send | null = null
  let round = 0
  let busy = false
  let waiting = false
  let pairNow: ToDatesWorker | null = null
  let documentNow: PlanDocument | null = null
  let scopeNow: RuleScope = wholeCourse
  let overNow: MethodName | null = null

  function receive(answer: FromDatesWorker): void {
    if (answer.type === 'zone-wanted') return void extendZone(answer)
    if (answer.round === round && !waiting) answered(answer)
    // The comparison follows once nothing else is asked for.
    if (answer.type === 'ledger') endRound()
  }
  function endRound(): void {
    busy = false
    if (waiting) ask()
  }
  /** A rule reaches further than the zone data that came with the plan: they are fetched, and the round is asked for again. */
  async function extendZone(wanted: ZoneWanted): Promise<void> {
    try {
      sender()({ type: 'zone', zone: await fetchZone(wanted) })
      waiting = true
    } catch {
      // Without them nothing can be said of these dates; what was shown stays, and the next change asks again.
    }
    endRound()
  }
  function sender(): Send {
    send ??= startWorker() ?? datesComputer(receive)
    return send
  }
  function startWorker(): Send | null {
    try {
      const worker = new Worker(new URL('../../workers/dates.ts', import.meta.url), { type: 'module' })
      worker.onmessage = (event: MessageEvent<FromDatesWorker>) => receive(event.data)
      worker.onerror = () => {
        worker.terminate()
        computeInPage()
      }
      return message => worker.postMessage(message)
    } catch {
      return null
    }
  }
  /** The worker broke off: what it was asked last is asked of the page. */
  function computeInPage(): void {
    send = datesComputer(receive)
    busy = false
    if (pairNow) send(pairNow)
    ask()
  }
  function ask(): void {
    if (!documentNow) return
    busy = true
    waiting = false
    sender()({ type: 'plan', round: ++round, document: documentNow, scope: scopeNow, over: overNow })
  }
  return {
    pair({ source, more, found, target, zone, before, mode }: PlanReply): void {
      pairNow = {
        type: 'pair',
        source: sideOf(source),
        more: more.map(sideOf),
        found: found.map(each => ({ id: each.course.id, ...sideOf(each) })),
        target: sideOf(target),
        before,
        inPlace: mode === 'in-place',
        zone,
      }
      sender()(pairNow)
    },
    plan(document: PlanDocument, scope: RuleScope, over: MethodName | null = null): void {
      documentNow = document
      scopeNow = scope
      overNow = over
      if (busy) waiting = true
      else ask()
    },
  }
}
