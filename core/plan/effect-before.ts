import type { Effect } from './effect'
import { nothingToSettle } from './to-settle'

/** An effect as it was kept before what is brought up to date was told apart from what is replaced, and places from what is removed. */
interface EffectUntold extends Omit<Effect, 'updated' | 'removed' | 'leftUnasked' | 'grades'> {
  readonly cleared: number
  readonly grades: Pick<Effect['grades'], 'by' | 'sum' | 'changed'>
}
/** An effect as it was kept before what is to settle had a place of its own: each part told it for itself, and older ones not at all. */
interface EffectBefore extends Omit<EffectUntold, 'grades' | 'traces' | 'periods' | 'settle'> {
  readonly places?: { readonly settle: number }
  readonly grades?: EffectUntold['grades'] & { readonly settle?: number; readonly uncategorised?: number }
  readonly traces?: Omit<Effect['traces'], 'unseen'> & {
    readonly settle?: number
    readonly unseen?: { readonly carried: number; readonly settle: number }
  }
  readonly periods?: { readonly filed: Effect['periods']; readonly asked: number }
}
/** The effect of a run as it is told now, whenever it was kept. */
export function effectAsNow(kept: Effect | EffectUntold | EffectBefore): Effect {
  if ('removed' in kept) return kept
  const { cleared, grades, ...rest } = 'settle' in kept ? kept : withSettle(kept)
  return {
    ...rest,
    updated: { things: 0, parts: {} },
    removed: { things: cleared, places: 0 },
    leftUnasked: 0,
    grades: { ...grades, categories: 0, rules: false },
  }
}
function withSettle(kept: EffectBefore): EffectUntold {
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
