<script setup lang="ts">
import { isComposed } from '~~/core/carry/texts'
import { writesText } from '~~/core/carry/places/row'
import { byTeachingWeek, unitNumber } from '~~/core/carry/regroup'
import type { ItemKind } from '~~/core/course/model'
import { arrivals, arrivalWords, type ArrivalState } from '~~/core/plan/parts/carry'
import { useStagePlan } from '../plan/store'
import RenameMany from './RenameMany.vue'
import { countsByKind, isPartly, lossesIn } from './carry'

/** What is decided of many things at once: kinds, arrival, where in a unit; and what would break. */
defineProps<{ mayEdit: boolean; selected: ReadonlySet<string> }>()
const emit = defineEmits<{ show: [lineage: string] }>()
const { store, plan, document } = useStagePlan()
const kinds = computed(() => countsByKind(store.rows, store.carried))
function carryKind(kind: ItemKind, carries: boolean): void {
  store.carry(
    store.nodes.filter(node => node.kind === kind).map(node => node.lineage),
    carries,
  )
}
const lostShown = 4
/** Things that stay behind although what comes needs them. */
const lost = computed(() =>
  store.lost.flatMap(({ where, sentence, mends }) =>
    where.lineage === null ? [] : [{ lineage: where.lineage, sentence, mends }],
  ),
)
const bring = (lineages: string[]): void => void store.carry(lineages, true)
const size = computed(() => {
  const bodies = new Map(
    store.nodes.flatMap(node =>
      node.body && store.carried.has(node.lineage) ? [[node.body, node.size]] : [],
    ),
  )
  return [...bodies.values()].reduce((sum, bytes) => sum + bytes, 0)
})
/** Texts that a run would put together, of parts or of several. */
const made = computed(
  () =>
    store.rows.filter(row => row.text && (isComposed(row.text) || row.text.isFrame) && writesText(row))
      .length,
)
const arrive = computed({
  get: () => document.value.carry.arrive,
  set: (value: ArrivalState) => store.changeIn('carry', { arrive: value }),
})
/** Kinds of which every item comes with title, dates, points and category alone. */
const frameKinds = computed({
  get: () => kinds.value.map(each => each.kind).filter(kind => document.value.carry.frameKinds[kind]),
  set: (chosen: ItemKind[]) =>
    store.changeIn('carry', { frameKinds: Object.fromEntries(chosen.map(kind => [kind, true])) }),
})
const at = computed({
  get: () => document.value.places.at,
  set: value => store.changeIn('places', { at: value }),
})
const regrouped = computed(() => Object.keys(document.value.places.into).length)
/** Units that have a number in their title can take what is due in the week of that number. */
const hasNumbers = computed(() =>
  store.nodes.some(node => node.type === 'unit' && unitNumber(node.title) !== null),
)
const nothingMoved = ref(false)
function regroupNow(): void {
  if (!store.terms) return
  const into = byTeachingWeek(store.rows, store.planned, store.terms.target)
  nothingMoved.value = Object.keys(into).length === 0
  if (!nothingMoved.value) store.changeIn('places', { into: { ...document.value.places.into, ...into } })
}
const losses = computed(() => lossesIn(store.rows))
const asked = computed(() => {
  const found = { announced: 0, deleted: 0, 'left-before': 0, 'removed-here': 0, 'went-into': 0, empty: 0 }
  for (const why of store.stays.values()) found[why]++
  return [
    found.announced && counted(found.announced, 'announcement'),
    found.deleted && `${counted(found.deleted, 'item')} deleted in the old course`,
    found['left-before'] && `${counted(found['left-before'], 'item')} left behind last time`,
    found['removed-here'] && `${counted(found['removed-here'], 'item')} removed here since`,
    found['went-into'] && `${counted(found['went-into'], 'item')} whose text went into another item`,
    found.empty && counted(found.empty, 'empty place'),
  ].filter(Boolean)
})
</script>

<template>
  <template v-if="lost.length">
    <h2>What needs what</h2>
    <ul class="plain">
      <li v-for="{ lineage, sentence, mends } in lost.slice(0, lostShown)" :key="lineage" class="small">
        <bdi>{{ sentence }}</bdi>
        <button class="link" type="button" @click="emit('show', lineage)">Show it</button>
        <button class="link" type="button" :disabled="!mayEdit" @click="bring([lineage])">{{ mends }}</button>
      </li>
    </ul>
    <p v-if="lost.length > 1" class="small">
      <button class="link" type="button" :disabled="!mayEdit" @click="bring(lost.map(each => each.lineage))">
        Bring all {{ lost.length }} that are needed
      </button>
    </p>
  </template>
  <template v-if="losses.length">
    <h2>Overwritten or removed</h2>
    <ul class="plain" aria-label="Overwritten or removed">
      <li v-for="row in losses.slice(0, 8)" :key="row.key" class="small">
        <button class="link" type="button" @click="emit('show', row.key)">{{ row.shell?.title }}</button>
      </li>
    </ul>
    <p v-if="losses.length > 8" class="small soft">and {{ losses.length - 8 }} more, all listed before Run</p>
  </template>
  <h2>By kind</h2>
  <ul class="kinds" aria-label="By kind">
    <li v-for="entry in kinds" :key="entry.kind">
      <ElCheckbox
        :model-value="entry.carried === entry.items"
        :indeterminate="isPartly(entry)"
        :disabled="!mayEdit"
        @change="carryKind(entry.kind, entry.carried < entry.items)"
        ><KindMark :kind="entry.kind" /> {{ kindWords(entry.kind)[1] }}</ElCheckbox
      >
      <span class="soft">{{ entry.carried }} of {{ entry.items }}</span>
    </li>
  </ul>
  <RenameMany :may-edit="mayEdit" :selected="selected" />
  <h2>How it arrives</h2>
  <dl class="settings">
    <dt>Items</dt>
    <dd>
      <ElSelect v-model="arrive" size="small" :disabled="!mayEdit" aria-label="How items arrive">
        <ElOption v-for="each in arrivals" :key="each" :value="each" :label="arrivalWords[each]" />
      </ElSelect>
    </dd>
    <dt>As frames</dt>
    <dd>
      <ElSelect
        v-model="frameKinds"
        size="small"
        multiple
        collapse-tags
        :disabled="!mayEdit"
        placeholder="none"
        aria-label="Kinds that come as frames, without content"
      >
        <ElOption v-for="{ kind } in kinds" :key="kind" :value="kind" :label="`all ${kindWords(kind)[1]}`" />
      </ElSelect>
    </dd>
    <template v-if="plan.target.nodes.length">
      <dt>In a unit</dt>
      <dd>
        <ElSelect v-model="at" size="small" :disabled="!mayEdit" aria-label="Where in a unit of the shell">
          <ElOption value="foot" label="below what it holds" />
          <ElOption value="head" label="above what it holds" />
        </ElSelect>
      </dd>
    </template>
  </dl>
  <p v-if="hasNumbers" class="small">
    <button class="link" type="button" :disabled="!mayEdit" @click="regroupNow">
      Put the items into the units of their teaching weeks
    </button>
    <br /><span class="soft">by the new due date and the number in the unit’s title</span>
    <span v-if="nothingMoved" role="status"><br />Every item stands in the unit of its week already.</span>
  </p>
  <p v-if="regrouped" class="small">
    {{ counted(regrouped, 'item') }} {{ regrouped === 1 ? 'goes' : 'go' }} into another unit.
    <button class="link" type="button" :disabled="!mayEdit" @click="store.changeIn('places', { into: {} })">
      Leave all where they were
    </button>
  </p>
  <p v-if="asked.length" class="small soft">Stays behind unless you tick it: {{ asked.join(', ') }}.</p>
  <p class="small soft">
    {{ sizeText(size) }} of texts and files. They are stored once and shared: rolling adds none<template
      v-if="made"
      >, but for {{ counted(made, 'text') }} put together anew</template
    >.
  </p>
</template>

<style scoped>
.plain,
.kinds {
  list-style: none;
  margin-bottom: 12px;
}
.plain li {
  padding: 3px 0;
}
.kinds li {
  display: flex;
  justify-content: space-between;
  align-items: center;
  padding: 4px 0;
  border-bottom: 1px solid var(--rule);
}
</style>
