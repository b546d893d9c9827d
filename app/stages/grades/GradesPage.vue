<script setup lang="ts">
import { v7 } from 'uuid'
import { gradedAs, type GradesDecisions, type PlannedCategory } from '~~/core/grading/plan'
import { hundredPoints } from '~~/core/grading/points'
import FootBar from '../FootBar.vue'
import StageFrame from '../StageFrame.vue'
import { useStagePlan } from '../plan/store'
import CategoryItems from './CategoryItems.vue'
import CategoryRow from './CategoryRow.vue'
import GradebookSample from './GradebookSample.vue'
import SchemePanel from './SchemePanel.vue'
import { weightsOfHundred } from './gradebook'

/** The grade rules, before the content: so that every item finds its category. */
const { store, plan, document } = useStagePlan()
const mayEdit = computed(() => plan.value.may.edit)
const decisions = computed(() => document.value.grades)
const grades = computed(() => store.carrying?.grades ?? null)
const lines = computed(() => grades.value?.categories ?? [])
const byWeights = computed(() => grades.value?.rules.by === 'weights')

type Change = GradesDecisions['categories'][string]
function change(lineage: string, changed: Change): void {
  const { categories } = decisions.value
  store.changeIn('grades', {
    categories: { ...categories, [lineage]: { ...categories[lineage], ...changed } },
  })
}
const held = computed(() => new Set(decisions.value.held))
function hold(lineage: string, holds: boolean): void {
  const rest = decisions.value.held.filter(each => each !== lineage)
  store.changeIn('grades', { held: holds ? [...rest, lineage] : rest })
}
const rescaleFault = ref('')
function makeHundred(equal: boolean): void {
  const made = weightsOfHundred(lines.value, decisions.value.held, equal)
  rescaleFault.value = typeof made === 'string' ? made : ''
  if (typeof made === 'string') return
  const changed = lines.value
    .filter(line => !line.fixed && !line.exempt && made[line.lineage] !== line.weight)
    .map(line => [line.lineage, { ...decisions.value.categories[line.lineage], weight: made[line.lineage] }])
  store.changeIn('grades', { categories: { ...decisions.value.categories, ...Object.fromEntries(changed) } })
}
function moveColumn(at: number, step: number): void {
  const order = lines.value.map(line => line.lineage)
  const [one, other] = [order[at], order[at + step]]
  if (one === undefined || other === undefined) return
  order[at] = other
  order[at + step] = one
  store.changeIn('grades', { order })
}
const newTitle = ref('')
function add(): void {
  const title = newTitle.value.trim()
  if (!title || !mayEdit.value) return
  store.changeIn('grades', { added: { ...decisions.value.added, [v7()]: title } })
  newTitle.value = ''
}
function takeBack(lineage: string): void {
  const { [lineage]: _, ...added } = decisions.value.added
  const items = Object.fromEntries(
    Object.entries(decisions.value.items).filter(([, item]) => item.category !== lineage),
  )
  store.changeIn('grades', { added, items })
}
const choose = (lineage: string, whose: 'source' | 'shell'): void =>
  store.changeIn('grades', { whose: { ...decisions.value.whose, [lineage]: whose } })
const pair = (source: string, shell: string | null): void =>
  store.changeIn('grades', { pairs: { ...decisions.value.pairs, [source]: shell } })
/** The shell's categories that nothing of the sources meets: one of them can be met by hand. */
const free = computed(() => lines.value.filter(line => line.shell && !line.source))

const graded = computed(() => {
  const planned = grades.value
  if (!planned) return []
  return store.nodes
    .filter(node => node.type === 'item' && store.carried.has(node.lineage) && (node.points ?? 0) > 0)
    .map(node => ({ node, ...gradedAs(node, planned, decisions.value) }))
})
const itemsOf = (line: PlannedCategory) => graded.value.filter(each => each.category === line.lineage)
const homeless = computed(() => graded.value.filter(each => each.category === null))
const setItem = (lineage: string, changed: GradesDecisions['items'][string]): void =>
  store.changeIn('grades', {
    items: { ...decisions.value.items, [lineage]: { ...decisions.value.items[lineage], ...changed } },
  })

/** What another sum than 100 makes, said of the largest category. */
const sumText = computed(() => {
  const sum = grades.value?.sum ?? 0
  const largest = lines.value
    .filter(line => !line.exempt)
    .sort((a, b) => (b.weight ?? 0) - (a.weight ?? 0))[0]
  if (!byWeights.value || !largest?.weight) return ''
  if (sum === hundredPoints) return 'The weights make 100.'
  const share = ((100 * largest.weight) / sum).toFixed(2)
  const weight = pointsText(largest.weight)
  return `The weights make ${pointsText(sum)}. Each counts in proportion: ${largest.title}, ${weight}, counts ${share}\u00A0%.`
})
/** The old course may have categories of which none comes, because nothing that they are for does. */
const noneText = computed(() => {
  const has = store.sides.some(side => side.categories.length > 0)
  return has
    ? 'No grade category comes, because nothing that counts in one does, and the shell has none.'
    : 'Neither course has a grade category.'
})
const settle = computed(() => store.toSettle.grades + store.toSettle.categories)
const totals = computed(() => [
  { count: lines.value.length, words: lines.value.length === 1 ? 'category' : 'categories' },
  { count: graded.value.length, words: 'graded items' },
  ...(settle.value ? [{ count: settle.value, words: 'to settle', settle: true }] : []),
])
</script>

<template>
  <StageFrame>
    <div class="head">
      <h2>Grade rules</h2>
      <span class="soft">They come before the items, so that each finds its category.</span>
    </div>
    <table v-if="lines.length" class="ruled rules">
      <thead>
        <tr>
          <th scope="col">Category</th>
          <th scope="col" class="number">Old course</th>
          <th scope="col" class="number">Shell now</th>
          <th v-if="byWeights" scope="col" class="number">Weight</th>
          <th v-if="byWeights" scope="col">Hold</th>
          <th scope="col">Drop low, high</th>
          <th scope="col">Items count</th>
          <th scope="col">Exempt</th>
          <th scope="col"><span class="visually-hidden">Order</span></th>
        </tr>
      </thead>
      <tbody>
        <template v-for="(line, at) in lines" :key="line.lineage">
          <CategoryRow
            :line="line"
            :by-weights="byWeights"
            :held="held.has(line.lineage)"
            :may-edit="mayEdit"
            :first="at === 0"
            :last="at === lines.length - 1"
            :free="free"
            :added="line.lineage in decisions.added"
            @change="changed => change(line.lineage, changed)"
            @hold="holds => hold(line.lineage, holds)"
            @move="step => moveColumn(at, step)"
            @whose="whose => choose(line.lineage, whose)"
            @pair="shell => line.source && pair(line.source.lineage, shell)"
            @take-back="takeBack(line.lineage)"
          />
          <tr class="under">
            <td colspan="9">
              <CategoryItems
                :items="itemsOf(line)"
                :categories="lines"
                :may-edit="mayEdit"
                @change="setItem"
              />
            </td>
          </tr>
        </template>
      </tbody>
      <tfoot v-if="byWeights">
        <tr>
          <td colspan="3" class="small">{{ sumText }}</td>
          <td class="number">
            <b :class="{ settle: grades?.sum !== hundredPoints }">{{ pointsText(grades?.sum ?? 0) }}</b>
          </td>
          <td colspan="5" class="small">
            <button class="link" type="button" :disabled="!mayEdit" @click="makeHundred(false)">
              Make them 100
            </button>
            ·
            <button class="link" type="button" :disabled="!mayEdit" @click="makeHundred(true)">
              Give equal shares of 100
            </button>
          </td>
        </tr>
      </tfoot>
    </table>
    <p v-else class="soft">{{ noneText }} Add one below, or go on: items without points need none.</p>
    <p v-if="rescaleFault" class="small fault" role="alert">{{ rescaleFault }}</p>
    <form class="add" @submit.prevent="add">
      <ElInput
        v-model="newTitle"
        size="small"
        :disabled="!mayEdit"
        placeholder="name of a new category"
        aria-label="Name of a new category"
        maxlength="200"
      />
      <button class="link" type="submit" :disabled="!mayEdit || !newTitle.trim()">Add the category</button>
    </form>
    <section v-if="homeless.length && lines.length" class="homeless">
      <h3>In no category</h3>
      <CategoryItems :items="homeless" :categories="lines" :may-edit="mayEdit" open @change="setItem" />
    </section>
    <GradebookSample v-if="lines.length" />
    <template #side>
      <SchemePanel :may-edit="mayEdit" />
    </template>
    <template #foot>
      <FootBar :totals="totals">
        <NuxtLink class="act on-deep" :to="`/plans/${plan.id}/carry`">Back to what comes across ⟶</NuxtLink>
      </FootBar>
    </template>
  </StageFrame>
</template>

<style scoped>
.head {
  display: flex;
  align-items: baseline;
  gap: 14px;
  margin-bottom: 8px;
  flex-wrap: wrap;
}
.rules th {
  letter-spacing: 0.05em;
}
.under > td {
  padding: 0 0 6px 14px;
}
.rules tfoot td {
  border-top: 1.5px solid var(--rule-strong);
  border-bottom: 0;
}
.add {
  display: flex;
  gap: 12px;
  align-items: center;
  margin: 6px 0 18px;
}
.add :deep(.el-input) {
  width: 240px;
}
.homeless {
  margin-bottom: 18px;
}
</style>
