<script setup lang="ts">
import { dateFields } from '~~/core/course/dates'
import { usePlan } from '../plan/store'
import {
  effectCounts,
  effectName,
  effectNames,
  effectTree,
  effectWord,
  type EffectItem,
  type EffectName,
} from './effect-tree'

/** The whole effect, unit by unit: what is added with its category and rubric beside it, and all that is otherwise done. */
defineProps<{ planId: string }>()
const store = usePlan()
const shown = ref<EffectName[]>(effectNames.filter(name => name !== 'stays'))
const counts = computed(() => {
  const found: Partial<Record<EffectName, number>> = {}
  for (const row of store.rows) {
    if (row.type !== 'item') continue
    const name = effectName(row)
    found[name] = (found[name] ?? 0) + 1
  }
  return found
})
const choices = computed(() => effectNames.filter(name => (counts.value[name] ?? 0) > 0))
const titles = (things: readonly { lineage: string; title: string }[]) =>
  new Map(things.map(({ lineage, title }) => [lineage, title]))
const groups = computed(() =>
  effectTree(store.rows, {
    shown: new Set(shown.value),
    categories: titles(store.carrying?.grades.categories ?? []),
    rubrics: titles(store.sides.flatMap(side => side.rubrics)),
    dates: store.planned,
  }),
)
/** Units that are open; a plan of few items is open from the start. */
const open = ref(new Set<string>())
const toggle = (key: string, isOpen: boolean): void => {
  if (isOpen === open.value.has(key)) return
  const next = new Set(open.value)
  if (isOpen) next.add(key)
  else next.delete(key)
  open.value = next
}
const allOpen = computed(() => groups.value.every(({ key }) => open.value.has(key)))
const openAll = (): void => {
  open.value = allOpen.value ? new Set() : new Set(groups.value.map(({ key }) => key))
}
const years = computed(() => store.terms && yearsOf(store.terms.target))
const datesText = ({ dates }: EffectItem): string =>
  dates
    ? dateFields
        .flatMap(field => {
          const at = dates[field]
          return at ? [`${fieldName(field).toLowerCase()} ${momentText(at, years.value)}`] : []
        })
        .join(', ')
    : ''
const gradedText = ({ category, rubric, row }: EffectItem): string =>
  [category, rubric && `rubric ${rubric}`, store.filed.get(row.source?.lineage ?? '')?.period]
    .filter(Boolean)
    .join(' · ')
</script>

<template>
  <section class="tree" aria-labelledby="tree-head">
    <header>
      <h3 id="tree-head">Everything, unit by unit</h3>
      <button class="link" type="button" @click="openAll">
        {{ allOpen ? 'Close all units' : 'Open all units' }}
      </button>
    </header>
    <ElCheckboxGroup v-if="choices.length > 1" v-model="shown" aria-label="What is shown" size="small">
      <ElCheckbox v-for="name in choices" :key="name" :value="name"
        >{{ counts[name] }} {{ effectWord(name, counts[name] ?? 0) }}</ElCheckbox
      >
    </ElCheckboxGroup>
    <p v-if="!groups.length" class="soft">Nothing of this kind.</p>
    <details
      v-for="group in groups"
      :key="group.key"
      :open="open.has(group.key)"
      :style="{ marginLeft: `${group.depth * 18}px` }"
      @toggle="toggle(group.key, ($event.target as HTMLDetailsElement).open)"
    >
      <summary>
        <b
          ><bdi>{{ group.title }}</bdi></b
        >
        <span class="soft small">
          <template v-if="group.happens">{{ group.happens }} · </template
          ><template v-if="group.opens">opens {{ momentText(group.opens, years) }} · </template
          >{{ effectCounts(group.counts) }}
        </span>
      </summary>
      <table v-if="open.has(group.key)" class="ruled">
        <thead class="visually-hidden">
          <tr>
            <th scope="col">Item</th>
            <th scope="col">What happens</th>
            <th scope="col">Category, rubric and grading period</th>
            <th scope="col">Dates</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="item in group.items" :key="item.key">
            <td>
              <KindMark
                v-if="item.row.source?.kind ?? item.row.shell?.kind"
                :kind="(item.row.source?.kind ?? item.row.shell?.kind)!"
              />
              <NuxtLink :to="`/plans/${planId}/carry?item=${item.key}`"
                ><bdi>{{ item.title }}</bdi></NuxtLink
              >
            </td>
            <td :class="{ fault: item.effect === 'removes', settle: item.effect === 'replaces' }">
              {{ item.happens }}
            </td>
            <td class="soft small">{{ gradedText(item) }}</td>
            <td class="small">{{ datesText(item) }}</td>
          </tr>
        </tbody>
      </table>
    </details>
  </section>
</template>

<style scoped>
.tree {
  margin: 22px 0;
  max-width: 980px;
}
.tree > header {
  display: flex;
  gap: 18px;
  align-items: baseline;
  border-bottom: 1px solid var(--rule-strong);
}
details {
  border-bottom: 1px solid var(--rule);
}
summary {
  padding: 5px 0;
  cursor: pointer;
}
summary .small {
  margin-left: 10px;
}
.ruled td {
  padding-top: 3px;
  padding-bottom: 3px;
}
.ruled td:first-child :deep(svg),
.ruled td:first-child > :first-child {
  margin-right: 6px;
}
.ruled td:nth-child(2) {
  width: 130px;
}
.ruled td:nth-child(3) {
  width: 240px;
}
.ruled td:nth-child(4) {
  width: 300px;
}
</style>
