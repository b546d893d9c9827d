import { datesComputer } from '~/workers/compute'
import type { DatesAnswer, PlanSide, ToDatesWorker } from '~/workers/messages'
import type { PlanDocument } from '~~/core/plan/document'
import type { PlanReply } from '~~/shared/api/plans'

/**
 * Has dates computed off the page. Only the newest document counts: while one is being worked on, the one asked for last
 * waits, and those between are dropped. Where no worker starts, the page computes itself.
 */
export function datesClient(answered: (answer: DatesAnswer) => void) {
  let send: ((message: ToDatesWorker) => void) | null = null
  let round = 0
  let busy = false
  let waiting = false
  let pairNow: ToDatesWorker | null = null
  let documentNow: PlanDocument | null = null

  function receive(answer: DatesAnswer): void {
    if (answer.round === round && !waiting) answered(answer)
    // The comparison comes last of a round.
    if (answer.type !== 'comparison') return
    busy = false
    if (waiting) ask()
  }
  function start(): (message: ToDatesWorker) => void {
    if (send) return send
    try {
      const worker = new Worker(new URL('../workers/dates.ts', import.meta.url), { type: 'module' })
      worker.onmessage = (event: MessageEvent<DatesAnswer>) => receive(event.data)
      worker.onerror = () => {
        worker.terminate()
        inPage()
      }
      send = message => worker.postMessage(message)
    } catch {
      inPage()
    }
    return send!
  }
  function inPage(): void {
    send = datesComputer(receive)
    busy = false
    if (pairNow) send(pairNow)
    if (documentNow) ask()
  }
  function ask(): void {
    busy = true
    waiting = false
    start()({ type: 'plan', round: ++round, document: documentNow! })
  }
  const side = ({ calendar, course, nodes, categories }: PlanReply['source']): PlanSide => ({
    calendar,
    meetings: course.meetings,
    nodes,
    categories,
  })
  return {
    pair(reply: PlanReply): void {
      pairNow = {
        type: 'pair',
        sources: [reply.source, ...reply.more].map(side),
        target: side(reply.target),
        zone: reply.zone,
      }
      start()(pairNow)
    },
    plan(document: PlanDocument): void {
      documentNow = document
      if (busy) waiting = true
      else ask()
    },
  }
}
