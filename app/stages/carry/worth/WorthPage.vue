<script setup lang="ts">
import { courseModes, courseModeWords, type CourseMode } from '~~/core/carry/mode'
import { sourceCheckNames, sourceChecks, type SourceCheck } from '~~/core/checks'
import { comesAsFrame } from '~~/core/plan/parts/carry'
import type { WorthReply } from '~~/shared/api/worth'
import FootBar from '../../FootBar.vue'
import StageFrame from '../../StageFrame.vue'
import { useStagePlan } from '../../plan/store'
import CarryPages from '../CarryPages.vue'

/** What is worth a look before it comes, each with its reason. Nothing is left behind unless somebody says so. */
const { store, plan, document } = useStagePlan()
const mayEdit = computed(() => plan.value.may.edit)
const { data, problem, loading, refresh } = useLoaded(async () => {
  // The answer rests on what the plan takes and says of its courses: so that is saved first.
  await store.save()
  return api.get<WorthReply>(`/plans/${plan.value.id}/worth`)
})
watch([() => plan.value.id, () => JSON.stringify(document.value.carry.modes)], () => void refresh(), {
  immediate: true,
})
const nodes = computed(() => new Map(store.nodes.map(node => [node.lineage, node])))
interface Line {
  lineage: string
  sentence: string
  title: string
  kind: ReturnType<typeof nodes.value.get> extends undefined
    ? never
    : NonNullable<ReturnType<typeof nodes.value.get>>['kind']
  carried: boolean
  isFrame: boolean
}
const groups = computed(() =>
  sourceCheckNames.flatMap((name): { name: SourceCheck; title: string; lines: Line[] }[] => {
    const lines = (data.value?.findings ?? []).flatMap(({ check, where, sentence }): Line[] => {
      const node = nodes.value.get(where.lineage ?? '')
      if (check !== name || !node) return []
      return [
        {
          lineage: node.lineage,
          sentence,
          title: node.title,
          kind: node.kind,
          carried: store.carried.has(node.lineage),
          isFrame: comesAsFrame(document.value.carry, node),
        },
      ]
    })
    return lines.length > 0 ? [{ name, title: sourceChecks[name].title, lines }] : []
  }),
)
const all = computed(() => new Set(groups.value.flatMap(group => group.lines.map(line => line.lineage))))
const left = computed(() => [...all.value].filter(lineage => !store.carried.has(lineage)).length)
const setCarried = (lines: readonly Line[], carries: boolean): void =>
  void store.carry(
    lines.map(line => line.lineage),
    carries,
  )
function setFrames(lines: readonly Line[], isFrame: boolean): void {
  const frames = Object.fromEntries(lines.map(line => [line.lineage, isFrame]))
  store.changeIn('carry', { frames: { ...document.value.carry.frames, ...frames } })
}
const modes = computed(() => ({ ...data.value?.modes, ...document.value.carry.modes }))
const setMode = (side: 'from' | 'into', mode: CourseMode): void =>
  store.changeIn('carry', { modes: { ...document.value.carry.modes, [side]: mode } })
const totals = computed(() => [
  { count: all.value.size, words: 'worth a look' },
  { count: left.value, words: left.value === 1 ? 'of them stays behind' : 'of them stay behind' },
])
</script>

<template>
  <StageFrame>
    <CarryPages />
    <ProblemNote v-if="problem" :problem="problem" @retry="refresh" />
    <LoadingLines v-else-if="loading && !data" what="Looking through the old course …" />
    <p v-else-if="!groups.length" class="soft">
      Nothing here needs a second look: no doubles, nothing of another year, nothing that students left
      untouched.
    </p>
    <section v-for="{ name, title, lines } in groups" :key="name" class="group" :aria-label="title">
      <header>
        <h2>{{ title }}</h2>
        <span class="soft">{{ counted(lines.length, 'item') }}</span>
        <span class="spring" />
        <button
          v-if="lines.length > 1"
          class="link small"
          type="button"
          :disabled="!mayEdit"
          @click="setCarried(lines, false)"
        >
          Leave all {{ lines.length }} behind
        </button>
        <button
          v-if="lines.length > 1 && name !== 'content.twice'"
          class="link small"
          type="button"
          :disabled="!mayEdit"
          @click="setFrames(lines, true)"
        >
          Take all {{ lines.length }} as frames
        </button>
      </header>
      <ul>
        <li v-for="line in lines" :key="line.lineage" :class="{ left: !line.carried }">
          <span class="what">
            <KindMark :kind="line.kind" />
            <NuxtLink :to="`/plans/${plan.id}/carry?item=${line.lineage}`"
              ><bdi>{{ line.title }}</bdi></NuxtLink
            >
          </span>
          <span class="soft why">{{ line.sentence }}</span>
          <span class="acts small">
            <template v-if="line.carried">
              <button
                class="link"
                type="button"
                :disabled="!mayEdit"
                :aria-label="`Leave ${line.title} behind`"
                @click="setCarried([line], false)"
              >
                Leave it behind
              </button>
              <button
                v-if="name !== 'content.twice'"
                class="link"
                type="button"
                :disabled="!mayEdit"
                :aria-label="
                  line.isFrame ? `Take ${line.title} with its content` : `Take ${line.title} as a frame`
                "
                @click="setFrames([line], !line.isFrame)"
              >
                {{ line.isFrame ? 'Take its content too' : 'Take a frame' }}
              </button>
            </template>
            <template v-else>
              <span class="soft">stays behind</span>
              <button
                class="link"
                type="button"
                :disabled="!mayEdit"
                :aria-label="`Carry ${line.title}`"
                @click="setCarried([line], true)"
              >
                Carry it
              </button>
            </template>
          </span>
        </li>
      </ul>
    </section>
    <template #side>
      <h2>How it is taught</h2>
      <dl v-if="data" class="settings">
        <dt>Old course</dt>
        <dd>
          <ElSelect
            :model-value="modes.from"
            size="small"
            :disabled="!mayEdit"
            aria-label="How the old course was taught"
            @change="mode => setMode('from', mode)"
          >
            <ElOption v-for="mode in courseModes" :key="mode" :value="mode" :label="courseModeWords[mode]" />
          </ElSelect>
        </dd>
        <dt>New course</dt>
        <dd>
          <ElSelect
            :model-value="modes.into"
            size="small"
            :disabled="!mayEdit"
            aria-label="How the new course will be taught"
            @change="mode => setMode('into', mode)"
          >
            <ElOption v-for="mode in courseModes" :key="mode" :value="mode" :label="courseModeWords[mode]" />
          </ElSelect>
        </dd>
      </dl>
      <p class="small soft">
        Where the two differ, what was made for the old way is listed here. A frame keeps the title, dates,
        points and category; you write the new content.
      </p>
      <p class="small soft">Nothing stays behind unless you say so.</p>
    </template>
    <template #foot>
      <FootBar :totals="totals">
        <NuxtLink class="act on-deep" :to="`/plans/${plan.id}/carry`">Back to the ledger ⟶</NuxtLink>
      </FootBar>
    </template>
  </StageFrame>
</template>

<style scoped>
.group {
  margin-bottom: 18px;
}
.what {
  display: flex;
  gap: 7px;
  align-items: baseline;
}
.group header {
  display: flex;
  align-items: baseline;
  gap: 12px;
  border-bottom: 1.5px solid var(--rule-strong);
  padding-bottom: 3px;
  flex-wrap: wrap;
}
h2 {
  margin: 0;
}
.spring {
  flex: 1;
}
ul {
  list-style: none;
}
li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1.1fr) auto;
  gap: 12px;
  align-items: baseline;
  padding: 5px 0;
  border-bottom: 1px solid var(--rule);
}
.left bdi {
  color: var(--ink-soft);
}
.acts {
  display: flex;
  gap: 12px;
  white-space: nowrap;
}
@media (max-width: 620px) {
  li {
    grid-template-columns: minmax(0, 1fr);
    gap: 2px;
  }
}
</style>
