<script setup lang="ts">
import { isComposed } from '~~/core/carry/texts'
import { placeChoices, type PlaceChoice, type UnitEnd } from '~~/core/carry/decisions'
import { subtree } from '~~/core/course/outline'
import { lostIn } from '~~/core/plan/placements'
import {
  arrivals,
  arrivalWords,
  groupChoices,
  type ArrivalState,
  type GroupChoice,
} from '~~/core/plan/parts/carry'
import { useStagePlan } from '../plan/store'
import ChangedParts from './ChangedParts.vue'
import ItemExtent from './ItemExtent.vue'
import MadeDetails from './MadeDetails.vue'
import TextChoice from './TextChoice.vue'
import TextCompare from './TextCompare.vue'
import UnitCompare from './UnitCompare.vue'
import { alike, removable, titleOf, type ShownRow } from './carry'
import { changedPartsText, whyTheyMeet } from './place-words'

/** The selected row: why both sides meet, both texts, and what becomes of them. */
const props = defineProps<{
  shown: ShownRow
  mayEdit: boolean
  /** What comes and is chosen with it: it goes into the same unit. */
  together: readonly ShownRow[]
}>()
const emit = defineEmits<{ reorder: [step: -1 | 1] }>()
const { store, plan, document } = useStagePlan()
const row = computed(() => props.shown.row)
const source = computed(() => row.value.source)
const shell = computed(() => row.value.shell)
const places = computed(() => document.value.places)
const isPair = computed(() => source.value !== null && row.value.match !== null)
const isItem = computed(() => row.value.type === 'item')
/** The shell's thing that the source's meets, also where both are kept in rows of their own. */
const met = computed(() => {
  const lineage = row.value.match?.shell
  return shell.value ?? plan.value.target.nodes.find(node => node.lineage === lineage) ?? null
})
const sourceCourse = computed(() => {
  const side = store.sideOf(source.value?.lineage ?? '')
  return side?.course.id ?? plan.value.source.course.id
})
/** What the plan adds of its own: made in it, or taken from a course that is no source. */
const made = computed(() => document.value.added.made[source.value?.lineage ?? ''] ?? null)
const found = computed(() => document.value.added.found[source.value?.lineage ?? ''] ?? null)
const isWritten = computed(() => ['adds', 'both', 'fills', 'replaces', 'again'].includes(row.value.happens))
const mayOrder = computed(() => row.value.lineage !== null && !holder.value)
const foundFrom = computed(() => {
  const side = store.sideOf(source.value?.lineage ?? '')
  return side ? `${codeText(side.course)}, ${side.course.term.name}` : ''
})
const compares = computed(
  () => isPair.value && isItem.value && source.value !== null && met.value !== null && !met.value.holds,
)
/** How large it is: of a unit, all that it holds in the old course. */
const facts = computed(() => {
  const below = new Set(source.value ? subtree(store.nodes, source.value.lineage) : [])
  const nodes = store.nodes.filter(node => below.has(node.lineage) && node.type === 'item')
  const size = nodes.reduce((sum, node) => sum + node.size, 0)
  if (made.value)
    return made.value.kind === null
      ? 'A unit made in this plan'
      : `Made in this plan: ${kindWords(made.value.kind)[0]}`
  if (isItem.value) return source.value?.body ? `A text or file of ${sizeText(source.value.size)}` : ''
  return source.value ? `${counted(nodes.length, 'item')} in the old course · ${sizeText(size)}` : ''
})
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
  return ['kept', 'joins'].includes(row.value.happens) ? 'keep' : 'replace'
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
/** An item's text can come in part where all of it would be written. */
const textChosen = computed(
  () =>
    props.shown.carried &&
    source.value?.isHtml === true &&
    (['fills', 'adds', 'both', 'replaces'].includes(row.value.happens) ||
      (row.value.text !== null && isComposed(row.value.text))),
)
/** The row in whose place its text goes. */
const holder = computed(() => store.rows.find(each => each.key === row.value.into) ?? null)
function bringAlone(): void {
  const key = source.value?.lineage
  if (!key) return
  const further = Object.entries(places.value.further)
    .map(([taker, list]) => [taker, list.filter(each => each !== key)] as const)
    .filter(([, list]) => list.length > 0)
  store.changeIn('places', { further: Object.fromEntries(further) })
}
const called = computed(() => row.value.carries?.title ?? source.value?.title ?? '')
const typed = ref('')
watch(
  // One by one: the ledger is made anew while somebody types, and what is typed stays.
  [() => row.value.key, called],
  () => {
    typed.value = called.value
  },
  { immediate: true },
)
const mayRename = computed(
  () =>
    props.shown.carried && !holder.value && !['kept', 'fixed', 'there', 'away'].includes(row.value.happens),
)
/** An empty name is its own again. */
function rename(value: string | number): void {
  const key = source.value?.lineage
  if (!key) return
  const { [key]: _, ...rest } = places.value.titles
  const title = String(value).trim()
  if (made.value && title) {
    store.changeIn('added', {
      made: { ...document.value.added.made, [key]: { ...made.value, title: title.slice(0, 500) } },
    })
    return
  }
  typed.value = title || (source.value?.title ?? '')
  store.changeIn('places', {
    titles: title && title !== source.value?.title ? { ...rest, [key]: title } : rest,
  })
}
const endWords: Record<UnitEnd, string> = { foot: 'below what it holds', head: 'above what it holds' }
const end = computed({
  get: (): UnitEnd | 'like' => places.value.ends[row.value.key] ?? 'like',
  set: value => {
    const { [row.value.key]: _, ...rest } = places.value.ends
    store.changeIn('places', { ends: value === 'like' ? rest : { ...rest, [row.value.key]: value } })
  },
})
const lost = computed(() => lostIn({ source: source.value, shell: met.value }))

function choose(choice: PlaceChoice, rows: readonly ShownRow['row'][] = [row.value]): void {
  const choices = Object.fromEntries(
    rows.flatMap(each => (each.source ? [[each.source.lineage, choice]] : [])),
  )
  store.changeIn('places', { choices: { ...places.value.choices, ...choices } })
}
const others = computed(() => alike(store.rows, row.value))
const ofKind = computed(() => others.value.filter(each => each.source?.kind === source.value?.kind))
const sameForAll = (): void => choose(chosen.value, [row.value, ...others.value])

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
    if (key)
      store.changeIn('places', { pairs: { ...places.value.pairs, [key]: value === 'none' ? null : value } })
  },
})
/** Nothing goes into itself, nor into what stands below it. */
const moves = computed(() =>
  [...new Set([props.shown, ...props.together])].flatMap(each => each.row.source?.lineage ?? []),
)
const ownBelow = computed(() => new Set(moves.value.flatMap(lineage => subtree(store.nodes, lineage))))
const units = computed(() =>
  store.rows.flatMap(each =>
    each.type === 'unit' && each.lineage !== null && !ownBelow.value.has(each.source?.lineage ?? '')
      ? [{ key: each.source?.lineage ?? each.key, title: (each.shell ?? each.source)?.title ?? '' }]
      : [],
  ),
)
// A list of all units or items is drawn once somebody opens it; until then what is chosen is all that it shows.
const opened = ref<'pair' | 'into' | null>(null)
const openList = (list: 'pair' | 'into', isOpen: boolean): void => {
  opened.value = isOpen ? list : null
}
const unitsShown = computed(() =>
  opened.value === 'into' ? units.value : units.value.filter(unit => unit.key === into.value),
)
const pairsShown = computed(() =>
  opened.value === 'pair'
    ? couldMeet.value
    : plan.value.target.nodes.filter(node => node.lineage === pair.value),
)
const comes = computed(() => ['adds', 'both'].includes(row.value.happens))
const into = computed({
  get: () => {
    const chosenUnit = places.value.into[source.value?.lineage ?? '']
    if (chosenUnit === undefined) return 'as-it-was'
    return chosenUnit ?? 'top'
  },
  set: value => {
    const all = { ...places.value.into }
    for (const lineage of moves.value) {
      if (value === 'as-it-was') delete all[lineage]
      else all[lineage] = value === 'top' ? null : value
    }
    store.changeIn('places', { into: all })
  },
})
const state = computed({
  get: (): ArrivalState | 'like' => document.value.carry.states[source.value?.lineage ?? ''] ?? 'like',
  set: value => {
    const key = source.value?.lineage
    if (!key) return
    const { [key]: _, ...rest } = document.value.carry.states
    store.changeIn('carry', { states: value === 'like' ? rest : { ...rest, [key]: value } })
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
      store.changeIn('carry', { groups: { ...document.value.carry.groups, [group.value.lineage]: value } })
  },
})
/** What the shell has alone: it stays, or it is taken away; it, all of its kind that nothing meets, or all of them. */
const isAlone = computed(() => source.value === null || ['unfilled', 'removes'].includes(row.value.happens))
const fate = computed(() => (row.value.lineage === null ? 'remove' : 'stay'))
function settleFate(value: 'remove' | 'stay', rows: readonly ShownRow['row'][]): void {
  const decided = Object.fromEntries(rows.map(each => [each.key, value]))
  store.changeIn('places', { shell: { ...places.value.shell, ...decided } })
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
    <p v-if="facts" class="small soft">{{ facts }}</p>
    <p v-if="why" class="small soft">{{ why }}</p>
    <TextCompare
      v-if="compares && source && met && !row.parts.length"
      :old="{ course: sourceCourse, lineage: source.lineage }"
      :now="{ course: plan.target.course.id, lineage: met.lineage }"
    />
    <UnitCompare
      v-if="isPair && !isItem && source && met"
      :key="row.key"
      :source="source.lineage"
      :shell="met.lineage"
    />
    <p v-if="holder" class="small">
      Its text goes into “{{ titleOf(holder) }}”, below the text there.
      <span class="settle">Its points, dates, category and settings do not come.</span>
      <button class="link" type="button" :disabled="!mayEdit" @click="bringAlone">
        Bring it as an item of its own
      </button>
    </p>
    <template v-if="choosable && !holder">
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
        This place holds no {{ source?.kind ? kindWords(source.kind)[0] : 'item' }}. Title, points, category,
        rubric and dates survive; its {{ changedPartsText(lost) }} would be lost.
      </p>
      <p v-if="row.settle" class="small">
        <button class="link" type="button" :disabled="!mayEdit" @click="choose(chosen)">
          {{ choiceText[chosen] }}, and go on
        </button>
      </p>
      <p v-if="others.length">
        <button class="link small" type="button" :disabled="!mayEdit" @click="sameForAll">
          Choose the same for {{ others.length }} more like it
        </button>
      </p>
      <p v-if="ofKind.length && ofKind.length < others.length && source?.kind">
        <button
          class="link small"
          type="button"
          :disabled="!mayEdit"
          @click="choose(chosen, [row, ...ofKind])"
        >
          Only for the
          {{ counted(ofKind.length, kindWords(source.kind)[0], kindWords(source.kind)[1]) }} among them
        </button>
      </p>
    </template>
    <ChangedParts
      v-if="row.parts.length && source && shell"
      :row="row"
      :source="source"
      :shell="shell"
      :source-course="sourceCourse"
      :may-edit="mayEdit"
    />
    <TextChoice v-if="textChosen" :shown="shown" :may-edit="mayEdit" />
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
    <dl v-if="!isItem && shell && row.lineage !== null" class="settings">
      <dt>Stands</dt>
      <dd>
        <ElSelect
          v-model="end"
          size="small"
          :disabled="!mayEdit"
          aria-label="Where in this unit what comes stands"
        >
          <ElOption value="like" :label="`like the other units (${endWords[document.places.at]})`" />
          <ElOption v-for="(words, each) in endWords" :key="each" :value="each" :label="words" />
        </ElSelect>
      </dd>
    </dl>
    <dl v-if="source && mayRename" class="settings">
      <dt>Called</dt>
      <dd>
        <ElInput
          v-model="typed"
          size="small"
          :disabled="!mayEdit"
          maxlength="500"
          aria-label="What it is called in the shell"
          @change="rename"
        />
      </dd>
    </dl>
    <MadeDetails
      v-if="made && source"
      :key="source.lineage"
      :lineage="source.lineage"
      :thing="made"
      :may-edit="mayEdit"
    />
    <p v-if="found && source" class="small">
      Taken from <bdi>{{ foundFrom }}</bdi>, which stays as it is.
      <button class="link" type="button" :disabled="!mayEdit" @click="store.takeOut(source.lineage)">
        Take it out of the plan
      </button>
    </p>
    <ItemExtent v-if="source?.body && isItem && isWritten && !holder" :shown="shown" :may-edit="mayEdit" />
    <p v-if="mayOrder" class="small">
      <button class="link" type="button" :disabled="!mayEdit" @click="emit('reorder', -1)">Move it up</button>
      or
      <button class="link" type="button" :disabled="!mayEdit" @click="emit('reorder', 1)">down</button>
      <span class="soft"> among its neighbours</span>
    </p>
    <!-- Hidden rather than taken away: lists that come and go with every tick cost more than all else of it. -->
    <dl v-if="source" v-show="shown.carried && !holder" class="settings">
      <template v-if="plan.target.nodes.length">
        <dt>Meets</dt>
        <dd>
          <ElSelect
            v-model="pair"
            size="small"
            filterable
            :disabled="!mayEdit"
            aria-label="What it meets in the shell"
            @visible-change="open => openList('pair', open)"
          >
            <ElOption value="none" label="nothing of the shell" />
            <ElOption
              v-for="node in pairsShown"
              :key="node.lineage"
              :value="node.lineage"
              :label="node.title"
            />
          </ElSelect>
        </dd>
      </template>
      <template v-if="comes || !shown.carried">
        <dt>Goes into</dt>
        <dd>
          <ElSelect
            v-model="into"
            size="small"
            :disabled="!mayEdit"
            aria-label="Into which unit it goes"
            @visible-change="open => openList('into', open)"
          >
            <ElOption value="as-it-was" label="where it was" />
            <ElOption value="top" label="outside the units" />
            <ElOption v-for="unit in unitsShown" :key="unit.key" :value="unit.key" :label="unit.title" />
          </ElSelect>
          <p v-if="moves.length > 1" class="small soft">all {{ moves.length }} chosen</p>
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
</style>
