<script setup lang="ts">
import { partWords, type ThingPart } from '~~/core/carry/again'
import { placeChoices, type PlaceChoice } from '~~/core/carry/decisions'
import { lostIn } from '~~/core/plan/placements'
import {
  arrivals,
  arrivalWords,
  groupChoices,
  type ArrivalState,
  type GroupChoice,
} from '~~/core/plan/parts/carry'
import { useStagePlan } from '../plan/store'
import TextCompare from './TextCompare.vue'
import { alike, removable, type ShownRow } from './carry'
import { changeWords, partText, whyTheyMeet } from './place-words'

/** The selected row: why both sides meet, both texts, and what becomes of them. */
const props = defineProps<{ shown: ShownRow; mayEdit: boolean }>()
const { store, plan, document } = useStagePlan()
const row = computed(() => props.shown.row)
const source = computed(() => row.value.source)
const shell = computed(() => row.value.shell)
const places = computed(() => document.value.places)
const isPair = computed(() => source.value !== null && row.value.match !== null)
const isItem = computed(() => row.value.type === 'item')
const isBesides = computed(() => row.value.happens === 'both')
/** The shell's thing that the source's meets, also where both are kept in rows of their own. */
const met = computed(() => {
  const lineage = row.value.match?.shell
  return shell.value ?? plan.value.target.nodes.find(node => node.lineage === lineage) ?? null
})
const sourceCourse = computed(() => {
  const at = store.carrying?.merged.from.get(source.value?.lineage ?? '') ?? 0
  return [plan.value.source, ...plan.value.more][at]?.course.id ?? plan.value.source.course.id
})
const compares = computed(
  () => isPair.value && isItem.value && source.value !== null && met.value !== null && !met.value.holds,
)
const choosable = computed(
  () =>
    isPair.value &&
    props.shown.carried &&
    met.value !== null &&
    !met.value.fixed &&
    row.value.parts.length === 0 &&
    !['again', 'there'].includes(row.value.happens),
)
const chosen = computed((): PlaceChoice => {
  const choice = source.value && places.value.choices[source.value.lineage]
  if (choice) return choice
  if (row.value.happens === 'both' || row.value.happens === 'adds') return 'both'
  return row.value.happens === 'kept' ? 'keep' : 'replace'
})
const choiceText = computed((): Record<PlaceChoice, string> => {
  if (row.value.type === 'unit')
    return {
      replace: 'Put its items there, under the old name',
      keep: 'Put its items there, under the shell’s name',
      both: 'Add it as a unit of its own',
    }
  if (met.value?.holds)
    return { replace: 'Fill this place', keep: 'Leave it behind', both: 'Add it beside the place' }
  return {
    replace: 'Replace it with the old course’s',
    keep: 'Keep the shell’s, leave the old one behind',
    both: placeChoices.both,
  }
})
const lost = computed(() => lostIn({ source: source.value, shell: met.value }))

function choose(choice: PlaceChoice, rows: readonly ShownRow['row'][] = [row.value]): void {
  const choices = Object.fromEntries(
    rows.flatMap(each => (each.source ? [[each.source.lineage, choice]] : [])),
  )
  store.changePlaces({ choices: { ...places.value.choices, ...choices } })
}
const others = computed(() => alike(store.rows, row.value))
const sameForAll = (): void => choose(chosen.value, [row.value, ...others.value])

function takePart(part: ThingPart, side: 'source' | 'shell'): void {
  const key = source.value?.lineage
  if (!key) return
  store.changePlaces({
    parts: { ...places.value.parts, [key]: { ...places.value.parts[key], [part]: side } },
  })
}
const partSide = (part: ThingPart, takes: boolean): 'source' | 'shell' | undefined =>
  places.value.parts[source.value?.lineage ?? '']?.[part] ??
  (row.value.parts.find(each => each.part === part)?.settle ? undefined : takes ? 'source' : 'shell')

/** What the shell has that the source's could meet instead: of its sort, and free. */
const couldMeet = computed(() => {
  const taken = new Set(
    store.rows.flatMap(each => (each.match && each.key !== row.value.key ? each.match.shell : [])),
  )
  return plan.value.target.nodes.filter(node => node.type === row.value.type && !taken.has(node.lineage))
})
const pair = computed({
  get: () => row.value.match?.shell ?? 'none',
  set: value => {
    const key = source.value?.lineage
    if (key) store.changePlaces({ pairs: { ...places.value.pairs, [key]: value === 'none' ? null : value } })
  },
})
const units = computed(() =>
  store.rows.flatMap(each =>
    each.type === 'unit' && each.lineage !== null
      ? [{ key: each.source?.lineage ?? each.key, title: (each.shell ?? each.source)?.title ?? '' }]
      : [],
  ),
)
const comes = computed(() => ['adds', 'both'].includes(row.value.happens))
const into = computed({
  get: () => {
    const chosenUnit = places.value.into[source.value?.lineage ?? '']
    if (chosenUnit === undefined) return 'as-it-was'
    return chosenUnit ?? 'top'
  },
  set: value => {
    const key = source.value?.lineage
    if (!key) return
    const { [key]: _, ...rest } = places.value.into
    const wanted = value === 'top' ? null : value
    store.changePlaces({ into: value === 'as-it-was' ? rest : { ...rest, [key]: wanted } })
  },
})
const state = computed({
  get: (): ArrivalState | 'like' => document.value.carry.states[source.value?.lineage ?? ''] ?? 'like',
  set: value => {
    const key = source.value?.lineage
    if (!key) return
    const { [key]: _, ...rest } = document.value.carry.states
    store.changeCarry({ states: value === 'like' ? rest : { ...rest, [key]: value } })
  },
})
const group = computed(() => {
  const all = [plan.value.source, ...plan.value.more].flatMap(side => side.groups)
  return all.find(each => each.lineage === source.value?.group) ?? null
})
const forWhom = computed({
  get: (): GroupChoice => document.value.carry.groups[group.value?.lineage ?? ''] ?? 'group',
  set: value => {
    if (group.value)
      store.changeCarry({ groups: { ...document.value.carry.groups, [group.value.lineage]: value } })
  },
})
/** What the shell has alone: it stays, or it is taken away; it, all of its kind that nothing meets, or all of them. */
const isAlone = computed(() => source.value === null || ['unfilled', 'removes'].includes(row.value.happens))
const fate = computed(() => (row.value.lineage === null ? 'remove' : 'stay'))
function settleFate(value: 'remove' | 'stay', rows: readonly ShownRow['row'][]): void {
  const decided = Object.fromEntries(rows.map(each => [each.key, value]))
  store.changePlaces({ shell: { ...places.value.shell, ...decided } })
}
const alone = computed(() => removable(store.rows))
const sameKind = computed(() =>
  alone.value.filter(each => each.shell?.kind === shell.value?.kind && each.type === row.value.type),
)
const base = computed(() => plan.value.before.bases.find(each => each.source === source.value?.lineage))
const why = computed(() => whyTheyMeet(row.value, met.value, base.value))
</script>

<template>
  <section class="panel" aria-label="Selected">
    <p class="caps">Selected</p>
    <h2>
      <bdi>{{ (source ?? shell)?.title }}</bdi>
    </h2>
    <p v-if="why" class="small soft">{{ why }}</p>
    <TextCompare
      v-if="compares && source && met"
      :old="{ course: sourceCourse, lineage: source.lineage }"
      :now="{ course: plan.target.course.id, lineage: met.lineage }"
    />
    <template v-if="choosable">
      <ElRadioGroup
        :model-value="chosen"
        :disabled="!mayEdit"
        class="choices"
        aria-label="What happens"
        @change="value => choose(value as PlaceChoice)"
      >
        <ElRadio v-for="(_, choice) in placeChoices" :key="choice" :value="choice">{{
          choiceText[choice]
        }}</ElRadio>
      </ElRadioGroup>
      <p v-if="met?.holds && lost.length" class="small settle">
        This place holds no {{ source?.kind ? kindWords(source.kind)[0] : 'item' }}. Title, points, category
        and dates survive; its {{ changeWords(lost) }} would be lost.
      </p>
      <p v-if="others.length">
        <button class="link small" type="button" :disabled="!mayEdit" @click="sameForAll">
          Choose the same for {{ others.length }} more like it
        </button>
      </p>
      <p v-if="isBesides && row.settle" class="small">
        <button class="link" type="button" :disabled="!mayEdit" @click="choose('both')">
          Keep both, and go on
        </button>
      </p>
    </template>
    <table v-if="row.parts.length && source && shell" class="ruled parts">
      <caption class="caps">
        Changed since the last run
      </caption>
      <thead>
        <tr>
          <th scope="col">Part</th>
          <th scope="col">Old course</th>
          <th scope="col">Shell now</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="{ part, outcome, takes } in row.parts" :key="part">
          <th scope="row">
            {{ partWords[part] }}
            <span v-if="outcome === 'both'" class="settle small">both changed</span>
          </th>
          <td v-for="side in ['source', 'shell'] as const" :key="side">
            <ElRadio
              :model-value="partSide(part, takes)"
              :value="side"
              :disabled="!mayEdit"
              :aria-label="`${partWords[part]}: take the ${side === 'source' ? 'old course’s' : 'shell’s'}`"
              @change="takePart(part, side)"
              >{{ partText(part, side === 'source' ? source : shell, row, side) }}</ElRadio
            >
          </td>
        </tr>
      </tbody>
    </table>
    <template v-if="isAlone && shell && !shell.fixed">
      <ElRadioGroup
        :model-value="fate"
        :disabled="!mayEdit"
        class="choices"
        aria-label="What becomes of it"
        @change="value => settleFate(value as 'remove' | 'stay', [row])"
      >
        <ElRadio value="stay">{{ shell.holds ? 'Keep the empty place' : 'It stays in the shell' }}</ElRadio>
        <ElRadio value="remove">{{ shell.holds ? 'Remove the place' : 'Remove it from the shell' }}</ElRadio>
      </ElRadioGroup>
      <p v-if="sameKind.length > 1">
        <button class="link small" type="button" :disabled="!mayEdit" @click="settleFate(fate, sameKind)">
          The same for all {{ sameKind.length }} {{ shell.kind ? kindWords(shell.kind)[1] : 'units' }} that
          nothing meets
        </button>
      </p>
    </template>
    <p v-if="isAlone && shell && !shell.fixed && alone.length > sameKind.length">
      <button class="link small" type="button" :disabled="!mayEdit" @click="settleFate(fate, alone)">
        The same for everything that nothing meets: {{ alone.length }}
      </button>
    </p>
    <dl v-if="source && shown.carried" class="settings">
      <template v-if="plan.target.nodes.length">
        <dt>Meets</dt>
        <dd>
          <ElSelect
            v-model="pair"
            size="small"
            filterable
            :disabled="!mayEdit"
            aria-label="What it meets in the shell"
          >
            <ElOption value="none" label="nothing of the shell" />
            <ElOption
              v-for="node in couldMeet"
              :key="node.lineage"
              :value="node.lineage"
              :label="node.title"
            />
          </ElSelect>
        </dd>
      </template>
      <template v-if="comes">
        <dt>Goes into</dt>
        <dd>
          <ElSelect v-model="into" size="small" :disabled="!mayEdit" aria-label="Into which unit it goes">
            <ElOption value="as-it-was" label="where it was" />
            <ElOption value="top" label="outside the units" />
            <ElOption v-for="unit in units" :key="unit.key" :value="unit.key" :label="unit.title" />
          </ElSelect>
        </dd>
      </template>
      <template v-if="isItem">
        <dt>Arrives</dt>
        <dd>
          <ElSelect v-model="state" size="small" :disabled="!mayEdit" aria-label="How it arrives">
            <ElOption value="like" :label="`like the others (${arrivalWords[document.carry.arrive]})`" />
            <ElOption v-for="each in arrivals" :key="each" :value="each" :label="arrivalWords[each]" />
          </ElSelect>
        </dd>
      </template>
      <template v-if="group">
        <dt>For {{ group.title }}</dt>
        <dd>
          <ElSelect v-model="forWhom" size="small" :disabled="!mayEdit" aria-label="For whom it is">
            <ElOption v-for="(label, each) in groupChoices" :key="each" :value="each" :label="label" />
          </ElSelect>
        </dd>
      </template>
    </dl>
  </section>
</template>

<style scoped>
.panel {
  border-bottom: 1px solid var(--rule);
  margin-bottom: 14px;
  padding-bottom: 8px;
}
.choices {
  display: flex;
  flex-direction: column;
  align-items: flex-start;
  margin-bottom: 6px;
}
.choices :deep(.el-radio) {
  height: auto;
  min-height: 24px;
  white-space: normal;
  margin-right: 0;
}
.parts {
  margin-bottom: 10px;
}
.parts caption {
  text-align: left;
}
.parts th[scope='row'] {
  text-transform: none;
  letter-spacing: 0;
  font-size: 12.5px;
  font-weight: 500;
  border-bottom: 1px solid var(--rule);
}
.parts th[scope='row'] span {
  display: block;
}
.parts :deep(.el-radio) {
  height: auto;
  white-space: normal;
  margin: 0;
  align-items: flex-start;
}
.parts :deep(.el-radio__label) {
  overflow-wrap: anywhere;
  font-size: 12.5px;
}
.settings {
  display: grid;
  grid-template-columns: 74px minmax(0, 1fr);
  gap: 5px 8px;
  align-items: center;
  margin: 8px 0;
  font-size: 13px;
}
.settings dd {
  margin: 0;
}
</style>
