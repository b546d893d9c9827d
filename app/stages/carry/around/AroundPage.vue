<script setup lang="ts">
import { furnishingNames, furnishings, type Furnishing } from '~~/core/course/furniture'
import FootBar from '../../FootBar.vue'
import StageFrame from '../../StageFrame.vue'
import { useStagePlan } from '../../plan/store'
import CarryPages from '../CarryPages.vue'
import { furnitureLines, type FurnitureLine } from './furniture'

/** What stands around the units, part by part: what the old course has, what happens, what the shell will have. */
const { store, plan, document } = useStagePlan()
const mayEdit = computed(() => plan.value.may.edit)
const lines = computed(() =>
  furnitureLines({
    sources: [plan.value.source, ...plan.value.more].map(side => side.furniture),
    shell: plan.value.target.furniture,
    carried: store.carried,
    choices: document.value.carry.furniture,
  }),
)
const parts = computed(() =>
  furnishingNames.flatMap(part => {
    const found = lines.value.filter(line => (line.source ?? line.shell)?.part === part)
    return found.length > 0 ? [{ part, lines: found }] : []
  }),
)
const coming = computed(
  () => lines.value.filter(line => line.happens === 'comes' || line.happens === 'replaces').length,
)
const replaced = computed(() => lines.value.filter(line => line.happens === 'goes').length)
const titles = computed(() => new Map(store.nodes.map(node => [node.lineage, node.title])))
function factsOf({ item, details }: Furnishing): string {
  const shown = item === null ? [] : [`shows “${titles.value.get(item) ?? 'an item that stays behind'}”`]
  return [...Object.entries(details).map(([name, value]) => `${name}: ${value}`), ...shown].join(' · ')
}
function choose({ source }: FurnitureLine, choice: 'take' | 'leave'): void {
  if (!source) return
  store.changeIn('carry', { furniture: { ...document.value.carry.furniture, [source.lineage]: choice } })
}
const happenWords: Record<FurnitureLine['happens'], string> = {
  comes: 'comes',
  replaces: 'replaces the shell’s',
  stays: 'stays',
  left: 'stays behind',
  'page-left': 'stays behind with its page',
  goes: 'is replaced',
}
/** A material of another edition or product than the shell's: said before it is taken. */
const differs = (line: FurnitureLine): boolean =>
  line.source?.part === 'material' &&
  lines.value.some(other => other.shell?.part === 'material' && other.shell.title !== line.source?.title)
const totals = computed(() => [
  { count: coming.value, words: coming.value === 1 ? 'part comes' : 'parts come' },
  { count: replaced.value, words: 'of the shell replaced' },
])
</script>

<template>
  <StageFrame>
    <CarryPages />
    <p v-if="!lines.length" class="soft">
      Neither course has a home page, contact card, syllabus or materials of its own.
    </p>
    <table v-else class="ruled" aria-label="What stands around the units">
      <thead>
        <tr>
          <th>Part</th>
          <th>The old course has</th>
          <th>What happens</th>
          <th>The shell has</th>
        </tr>
      </thead>
      <tbody v-for="{ part, lines: ofPart } in parts" :key="part">
        <tr v-for="(line, at) in ofPart" :key="(line.source ?? line.shell)?.lineage">
          <td class="part">{{ at === 0 ? furnishings[part].words : '' }}</td>
          <td>
            <template v-if="line.source">
              <bdi>{{ line.source.title }}</bdi>
              <span class="soft small facts">{{ factsOf(line.source) }}</span>
            </template>
            <span v-else class="soft">–</span>
          </td>
          <td>
            <ElSelect
              v-if="line.source && line.happens !== 'page-left'"
              :model-value="line.happens === 'left' ? 'leave' : 'take'"
              size="small"
              :disabled="!mayEdit"
              :aria-label="`What happens to ${line.source.title}`"
              @change="choice => choose(line, choice)"
            >
              <ElOption value="take" :label="line.replaces ? 'replaces the shell’s' : 'comes'" />
              <ElOption value="leave" label="stays behind" />
            </ElSelect>
            <span v-else class="soft">{{ happenWords[line.happens] }}</span>
            <span v-if="differs(line) && line.happens !== 'left'" class="small settle facts">
              The shell names another product or edition.
            </span>
          </td>
          <td>
            <template v-if="line.shell">
              <bdi :class="{ struck: line.happens === 'goes' }">{{ line.shell.title }}</bdi>
              <span class="soft small facts">{{ factsOf(line.shell) }}</span>
            </template>
            <span v-else class="soft">–</span>
          </td>
        </tr>
      </tbody>
    </table>
    <template #side>
      <h2>Part by part</h2>
      <p class="small">
        What the shell lacks comes with the old course unless you leave it. What the shell has stays unless
        you take the old one: then it is replaced, and the list before Run says so.
      </p>
      <p class="small soft">
        A home page or syllabus that is a page comes with that page. Leave the page behind, and the shell has
        none.
      </p>
    </template>
    <template #foot>
      <FootBar :totals="totals">
        <NuxtLink class="act on-deep" :to="`/plans/${plan.id}/carry`">Back to the ledger ⟶</NuxtLink>
      </FootBar>
    </template>
  </StageFrame>
</template>

<style scoped>
td.part {
  font-weight: 600;
  white-space: nowrap;
}
td {
  vertical-align: top;
}
.facts {
  display: block;
}
.struck {
  text-decoration: line-through;
  text-decoration-color: var(--buoy);
}
</style>
