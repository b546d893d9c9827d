import { execFileSync } from 'node:child_process'
import { mkdtempSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { Page } from '@playwright/test'
import type { PlanReply } from '../../shared/api/plans'
import { base } from './support'

export interface Dates {
  opens: string | null
  due: string | null
  closes: string | null
}
/** What the plan command makes of a plan as it is saved, by the items' keys. */
export async function byCommand(page: Page, id: string): Promise<Map<string, Dates>> {
  const plan = (await (await page.request.get(`${base()}/api/v1/plans/${id}`)).json()) as PlanReply
  const { rule, kindRules, unitRules, itemRules } = plan.document.dates
  const items = plan.source.nodes.flatMap(({ lineage, title, kind, unit, type, opens, due: was, closes }) =>
    type === 'item' ? [{ id: lineage, title, kind: kind ?? '', unit, opens, due: was, closes }] : [],
  )
  const { openFrom, openTo } = plan.document.windows ?? plan.target.course.windows
  const file = join(mkdtempSync(join(tmpdir(), 'northtide-case-')), 'case.json')
  const days = openFrom && openTo ? { from: openFrom.slice(0, 10), to: openTo.slice(0, 10) } : null
  const dates = { rule, kindRules, unitRules, itemRules }
  const terms = {
    source: plan.source.calendar,
    target: plan.target.calendar,
    sourceMeetings: plan.source.course.meetings,
    targetMeetings: plan.target.course.meetings,
    ...(days && { targetWindow: days }),
  }
  writeFileSync(file, JSON.stringify({ ...terms, ...dates, items }))
  const told = execFileSync('npm', ['run', '--silent', 'plan', '--', file], { encoding: 'utf8' })
  const result = JSON.parse(told) as { items: (Dates & { id: string })[] }
  return new Map(result.items.map(item => [item.id, item]))
}
