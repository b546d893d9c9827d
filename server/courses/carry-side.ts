import type { Knex } from 'knex'
import type { CourseAccess } from './access'
import {
  loadCategories,
  loadFurniture,
  loadGrace,
  loadGradeRules,
  loadGroups,
  loadRubrics,
} from './around.queries'
import { loadOutline } from './content.queries'

/**
 * What a course holds, as a plan rolls it and as its pages show it. To whom some kinds are `withheld`, of what stands around the items only
 * that is told which the others use. `withDeleted`: with what was deleted, for whoever may ask for that again.
 */
export async function loadCarrySide(
  db: Knex,
  id: string,
  withheld: CourseAccess['withheld'] = new Set(),
  withDeleted = false,
) {
  const nodes = await loadOutline(db, id, withheld, withDeleted)
  const whole = {
    nodes,
    categories: await loadCategories(db, id),
    grading: await loadGradeRules(db, id),
    grace: await loadGrace(db, id),
    rubrics: await loadRubrics(db, id),
    groups: await loadGroups(db, id),
    furniture: await loadFurniture(db, id),
  }
  if (withheld.size === 0) return whole
  const used = new Set(nodes.flatMap(({ lineage, rubric, group }) => [lineage, rubric, group]))
  return {
    ...whole,
    rubrics: whole.rubrics.filter(({ lineage }) => used.has(lineage)),
    groups: whole.groups.filter(({ lineage }) => used.has(lineage)),
    furniture: whole.furniture.filter(({ item }) => item === null || used.has(item)),
  }
}
