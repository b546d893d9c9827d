import type { PlanReply } from '~~/shared/api/plans'
import { api } from '~/composables/api'

/** A plan as the server has it, with all its courses. */
export const fetchPlan = (id: string): Promise<PlanReply> => api.get<PlanReply>(`/plans/${id}`)
