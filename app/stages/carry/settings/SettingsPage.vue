<script setup lang="ts">
import { settingNames, settingTitles, type SettingName } from '~~/core/course/settings'
import type { ItemKind } from '~~/core/course/model'
import type { PlanSettings } from '~~/shared/api/worth'
import FootBar from '../../FootBar.vue'
import StageFrame from '../../StageFrame.vue'
import { useStagePlan } from '../../plan/store'
import CarryPages from '../CarryPages.vue'
import { givenTo, linesOf, type SettingsLine } from './settings'

/** The settings of everything that comes, in a table; those of one item can be given to many. */
const { store, plan, document } = useStagePlan()
const mayEdit = computed(() => plan.value.may.edit)
const { data, problem, loading, refresh } = useLoaded(async () => {
  await store.save()
  return api.get<PlanSettings>(`/plans/${plan.value.id}/settings`)
})
watch(
  () => plan.value.id,
  () => void refresh(),
  { immediate: true },
)
const kind = ref<ItemKind | 'any'>('quiz')
const lines = computed(() =>
  linesOf(
    store.rows,
    new Map(data.value?.items.map(each => [each.lineage, each.settings]) ?? []),
    document.value.carry.settings,
  ),
)
const kinds = computed(() => [...new Set(lines.value.map(line => line.kind))])
watch(kinds, found => {
  if (kind.value !== 'any' && !found.includes(kind.value)) kind.value = found[0] ?? 'any'
})
const shown = computed(() => lines.value.filter(line => kind.value === 'any' || line.kind === kind.value))
const from = ref<string | null>(null)
const names = ref<SettingName[]>([])
const chosen = ref<ReadonlySet<string>>(new Set())
const model = computed(() => lines.value.find(line => line.lineage === from.value) ?? null)
function start(line: SettingsLine): void {
  from.value = line.lineage
  names.value = settingNames.filter(name => line.settings[name])
}
function mark(lineage: string, isOn: boolean): void {
  const next = new Set(chosen.value)
  if (isOn) next.add(lineage)
  else next.delete(lineage)
  chosen.value = next
}
const takers = computed(() =>
  shown.value.filter(line => chosen.value.has(line.lineage) && line.lineage !== from.value),
)
const markAll = (isOn: boolean): void => {
  chosen.value = new Set(isOn ? shown.value.map(line => line.lineage) : [])
}
function give(): void {
  if (!model.value) return
  store.changeIn('carry', {
    settings: givenTo(document.value.carry.settings, takers.value, model.value.settings, names.value),
  })
}
function takeBack(lineage: string): void {
  const { [lineage]: _, ...rest } = document.value.carry.settings
  store.changeIn('carry', { settings: rest })
}
const given = computed(() => Object.keys(document.value.carry.settings).length)
const totals = computed(() => [
  { count: shown.value.length, words: shown.value.length === 1 ? 'item' : 'items' },
  { count: given.value, words: 'with settings given here' },
])
</script>

<template>
  <StageFrame>
    <CarryPages />
    <div class="head">
      <ElSelect v-model="kind" size="small" class="kind" aria-label="Of which kind">
        <ElOption value="any" label="items of any kind" />
        <ElOption v-for="each in kinds" :key="each" :value="each" :label="kindWords(each)[1]" />
      </ElSelect>
      <button class="link small" type="button" @click="markAll(chosen.size === 0)">
        {{ chosen.size === 0 ? 'Tick all' : 'Tick none' }}
      </button>
    </div>
    <ProblemNote v-if="problem" :problem="problem" @retry="refresh" />
    <LoadingLines v-else-if="loading && !data" what="Fetching the settings …" />
    <p v-else-if="!lines.length" class="soft">Nothing that comes has settings.</p>
    <div v-else class="wide">
      <table class="ruled" aria-label="Settings as the shell will have them">
        <thead>
          <tr>
            <th><span class="visually-hidden">Give to it</span></th>
            <th>Item</th>
            <th v-for="name in settingNames" :key="name">{{ settingTitles[name] }}</th>
            <th><span class="visually-hidden">What to do</span></th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="line in shown" :key="line.lineage" :class="{ model: line.lineage === from }">
            <td>
              <ElCheckbox
                :model-value="chosen.has(line.lineage)"
                :disabled="!mayEdit || line.lineage === from"
                :aria-label="`Give settings to ${line.title}`"
                @change="value => mark(line.lineage, Boolean(value))"
              />
            </td>
            <td>
              <KindMark :kind="line.kind" /> <bdi>{{ line.title }}</bdi>
            </td>
            <td v-for="name in settingNames" :key="name" :class="{ given: line.given[name] !== undefined }">
              {{ line.settings[name] ?? '' }}
              <span v-if="line.given[name] !== undefined" class="soft small"
                >was {{ line.was[name] ?? 'not set' }}</span
              >
            </td>
            <td class="small">
              <button
                v-if="Object.keys(line.given).length"
                class="link"
                type="button"
                :disabled="!mayEdit"
                :aria-label="`Give ${line.title} its own settings back`"
                @click="takeBack(line.lineage)"
              >
                As it was
              </button>
              <button
                v-else
                class="link"
                type="button"
                :disabled="!mayEdit"
                :aria-label="`Give the settings of ${line.title} to others`"
                @click="start(line)"
              >
                Give these
              </button>
            </td>
          </tr>
        </tbody>
      </table>
    </div>
    <template #side>
      <template v-if="model">
        <p class="caps">Settings of</p>
        <h2>
          <bdi>{{ model.title }}</bdi>
        </h2>
        <ElCheckboxGroup v-model="names" class="names" aria-label="Which of them are given">
          <ElCheckbox v-for="name in settingNames" :key="name" :value="name">
            {{ settingTitles[name] }}: {{ model.settings[name] ?? 'not set' }}
          </ElCheckbox>
        </ElCheckboxGroup>
        <p class="small">
          <template v-if="takers.length">
            <button class="act" type="button" :disabled="!mayEdit || !names.length" @click="give">
              Give {{ counted(names.length, 'setting') }} to {{ counted(takers.length, 'item') }}
            </button>
          </template>
          <template v-else>Tick the items that get them.</template>
        </p>
      </template>
      <template v-else>
        <h2>Settings come exactly</h2>
        <p class="small">
          Attempts, time limits, feedback and the like come as they were. To give the settings of one item to
          others, press <b>Give these</b> beside it, then tick the others.
        </p>
      </template>
      <p v-if="given" class="small">
        {{ counted(given, 'item') }} {{ given === 1 ? 'gets' : 'get' }} other settings than in the old course.
        <button
          class="link"
          type="button"
          :disabled="!mayEdit"
          @click="store.changeIn('carry', { settings: {} })"
        >
          Give {{ given === 1 ? 'it its' : 'all their' }} own back
        </button>
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
.head {
  display: flex;
  gap: 14px;
  align-items: center;
  margin-bottom: 8px;
}
.kind {
  width: 170px;
}
.wide {
  overflow: auto;
}
td {
  vertical-align: top;
}
.given {
  color: var(--tide-text);
  font-weight: 600;
}
.given .small {
  font-weight: 400;
  display: block;
}
.model {
  background: var(--tide-wash);
}
.names {
  display: flex;
  flex-direction: column;
  align-items: flex-start;
  margin-bottom: 10px;
}
.names :deep(.el-checkbox) {
  height: auto;
  min-height: 24px;
  white-space: normal;
}
</style>
