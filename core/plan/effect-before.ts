import type { Effect } from './effect'
import { nothingToSettle } from './to-settle'

/** An effect as it was kept before what is to settle had a place of its own: each part told it for itself, and older ones not at all. */
interface EffectBefore extends Omit<Effect, 'grades' | 'traces' | 'periods' | 'settle'> {
  readonly places?: { readonly settle: number }
  readonly grades?: Effect['grades'] & { readonly settle?: number; readonly uncategorised?: number }
  readonly traces?: Omit<Effect['traces'], 'unseen'> & {
    readonly settle?: number
    readonly unseen?: { readonly carried: number; readonly settle: number }
  }
  readonly periods?: { readonly filed: Effect['periods']; readonly asked: number }
}
/** The effect of a run as it is told now, whenever it was kept. */
export function effectAsNow(kept: Effect | EffectBefore): Effect {
  if ('settle' in kept) return kept
  const { places, grades, traces, periods, ...rest } = kept
  const { by = 'weights', sum = 0, changed = 0 } = grades ?? {}
  const { out = 0, kept: stay = 0, passed = 0, unseen } = traces ?? {}
  return {
    ...rest,
    grades: { by, sum, changed },
    traces: { out, kept: stay, passed, unseen: unseen?.carried ?? 0 },
    periods: periods?.filed ?? [],
    settle: {
      ...nothingToSettle,
      places: places?.settle ?? 0,
      grades: grades?.settle ?? 0,
      categories: grades?.uncategorised ?? 0,
      traces: traces?.settle ?? 0,
      unseen: unseen?.settle ?? 0,
      dates: rest.dates.settle,
      periods: periods?.asked ?? 0,
    },
  }
}
