<script setup lang="ts">
import { itemStates, type ItemState } from '~~/core/course/model'
import { settingNames, settingTitles, type SettingName } from '~~/core/course/settings'
import type { Parts } from '~~/core/editing/parts'
import { parsePoints } from '~~/core/grading/points'
import type { CourseReply } from '~~/shared/api/courses'
import type { CourseLedger } from '~~/shared/api/ledger'
import { isUnit, type LedgerItem } from '~/stages/date/ledger'

/** What a unit or item is beside its dates, or what several have in common: each part is changed by itself, for all of them. */
const props = defineProps<{ items: readonly LedgerItem[]; course: CourseReply; known: CourseLedger | null }>()
const emit = defineEmits<{ change: [things: Record<string, Parts>] }>()
const several = 'several'
const none = 'none'

const units = computed(() => props.items.filter(isUnit))
const things = computed(() => props.items.filter(item => !isUnit(item)))
const only = computed(() => (props.items.length === 1 ? (props.items[0] ?? null) : null))
const isFixed = computed(() => props.items.some(({ node }) => node.fixed))
/** The value that all of them have; `several` where they differ. */
function shared<T>(of: readonly LedgerItem[], value: (item: LedgerItem) => T): T | typeof several {
  const [first, ...rest] = of.map(value)
  return rest.every(each => each === first) ? (first as T) : several
}
const give = (of: readonly LedgerItem[], parts: Parts): void =>
  emit('change', Object.fromEntries(of.map(({ lineage }) => [lineage, parts])))

const title = ref('')
watch(
  () => only.value?.node.title ?? '',
  text => {
    title.value = text
  },
  { immediate: true },
)
function rename(): void {
  const text = title.value.trim()
  if (only.value && text && text !== only.value.node.title) give([only.value], { title: text })
  else title.value = only.value?.node.title ?? ''
}

const points = computed(() => shared(things.value, ({ node }) => node.points))
const pointsShown = computed(() =>
  points.value === several ? '' : points.value === null ? '' : pointsText(points.value),
)
const pointsFault = ref('')
function setPoints(event: Event): void {
  const text = (event.target as HTMLInputElement).value.trim()
  const value = text === '' ? null : parsePoints(text)
  if (text !== '' && value === null) pointsFault.value = `“${text}” is no number of points, like 12.5.`
  else if (value !== null && value < 0) pointsFault.value = 'Points cannot be below 0.'
  else {
    pointsFault.value = ''
    give(things.value, { points: value })
  }
}
watch(
  () => props.items.map(({ lineage }) => lineage).join(),
  () => {
    pointsFault.value = ''
  },
)

const category = computed((): string => shared(things.value, ({ node }) => node.category) ?? none)
const categories = computed(() => [
  { value: none, label: 'no category' },
  ...props.course.categories.map(each => ({ value: each.lineage, label: each.title })),
])
const period = computed((): string => shared(things.value, ({ node }) => node.gradingPeriod) ?? none)
const periods = computed(() => [
  { value: none, label: 'no grading period' },
  ...(props.course.calendar.gradingPeriods ?? []).flatMap(({ name }) =>
    name ? [{ value: name, label: name }] : [],
  ),
])
const state = computed((): string => shared(props.items, ({ node }) => node.state))
const stateWords: Readonly<Record<ItemState, string>> = {
  visible: 'visible',
  hidden: 'hidden',
  listed: 'listed: date and points are seen, the content not yet',
  deleted: 'removed',
}
const states = itemStates.filter(each => each !== 'deleted')
const orNone = (value: string): string | null => (value === none ? null : value)

const worked = computed(() => {
  const on = new Set(props.known?.worked)
  return props.items.filter(({ lineage }) => on.has(lineage)).length
})
const removing = ref(false)
watch(
  () => props.items,
  () => {
    removing.value = false
  },
)
const inside = computed(() => {
  const within = new Set(units.value.map(({ lineage }) => lineage))
  return props.course.nodes.filter(({ unit }) => unit !== null && within.has(unit)).length
})
const removeText = computed(() => {
  const what = only.value ? `“${only.value.node.title}”` : counted(props.items.length, 'thing')
  return inside.value ? `Remove ${what} and the ${counted(inside.value, 'thing')} in it` : `Remove ${what}`
})

const setting = ref<SettingName>('attempts')
const value = ref('')
const settingOf = ({ lineage }: LedgerItem): string | null =>
  props.known?.settings[lineage]?.[setting.value] ?? null
watch(
  [setting, things],
  () => {
    const one = shared(things.value, settingOf)
    value.value = one === several || one === null ? '' : one
  },
  { immediate: true },
)
const have = computed(
  () => things.value.filter(item => (settingOf(item) ?? '') === value.value.trim()).length,
)
const takers = computed(() => things.value.length - have.value)
const giveText = computed(() => {
  const text = value.value.trim()
  const name = settingTitles[setting.value].toLowerCase()
  return text
    ? `Set ${name} to “${text}” for ${counted(takers.value, 'item')}`
    : `Take ${name} off ${counted(takers.value, 'item')}`
})
</script>

<template>
  <section aria-label="What it is">
    <dl>
      <template v-if="only">
        <dt><label for="thing-title">Title</label></dt>
        <dd>
          <input
            id="thing-title"
            v-model="title"
            class="text-box"
            maxlength="500"
            :disabled="isFixed"
            @change="rename"
          />
        </dd>
      </template>
      <dt><label for="thing-state">State</label></dt>
      <dd>
        <ElSelect
          id="thing-state"
          :model-value="state"
          size="small"
          :disabled="isFixed"
          aria-label="State"
          @change="(next: ItemState) => give(items, { state: next })"
        >
          <ElOption v-if="state === several" :value="several" label="several" disabled />
          <ElOption v-for="each in states" :key="each" :value="each" :label="stateWords[each]" />
        </ElSelect>
      </dd>
      <template v-if="things.length">
        <dt><label for="thing-points">Points</label></dt>
        <dd>
          <input
            id="thing-points"
            class="text-box"
            inputmode="decimal"
            :value="pointsShown"
            :placeholder="points === several ? 'several' : 'none'"
            :disabled="isFixed"
            :aria-invalid="pointsFault !== ''"
            @change="setPoints"
          />
          <span v-if="pointsFault" class="fault small" role="alert">{{ pointsFault }}</span>
        </dd>
        <dt><label for="thing-category">Category</label></dt>
        <dd>
          <ElSelect
            id="thing-category"
            :model-value="category"
            size="small"
            :disabled="isFixed"
            aria-label="Category"
            @change="(next: string) => give(things, { category: orNone(next) })"
          >
            <ElOption v-if="category === several" :value="several" label="several" disabled />
            <ElOption v-for="each in categories" :key="each.value" v-bind="each" />
          </ElSelect>
        </dd>
        <template v-if="periods.length > 1">
          <dt><label for="thing-period">Period</label></dt>
          <dd>
            <ElSelect
              id="thing-period"
              :model-value="period"
              size="small"
              aria-label="Grading period of it"
              @change="(next: string) => give(things, { period: orNone(next) })"
            >
              <ElOption v-if="period === several" :value="several" label="several" disabled />
              <ElOption v-for="each in periods" :key="each.value" v-bind="each" />
            </ElSelect>
          </dd>
        </template>
        <dt>
          <ElSelect v-model="setting" size="small" aria-label="Which setting">
            <ElOption v-for="name in settingNames" :key="name" :value="name" :label="settingTitles[name]" />
          </ElSelect>
        </dt>
        <dd>
          <input
            v-model="value"
            class="text-box"
            maxlength="200"
            placeholder="none"
            :disabled="isFixed"
            :aria-label="`${settingTitles[setting]} of what is chosen`"
            @keydown.enter="takers && give(things, { [setting]: value.trim() || null })"
          />
        </dd>
      </template>
    </dl>
    <p v-if="things.length && takers" class="small">
      <button
        class="link"
        type="button"
        :disabled="isFixed"
        @click="give(things, { [setting]: value.trim() || null })"
      >
        {{ giveText }}
      </button>
      {{ ' '
      }}<span v-if="have" class="soft"
        >{{ have }} {{ have === 1 ? 'has' : 'have' }} {{ value.trim() ? 'it' : 'none' }} already.</span
      >
    </p>
    <p v-else-if="things.length && value.trim()" class="small soft">
      {{ things.length === 1 ? 'It has' : `All ${things.length} have` }} it already.
    </p>
    <p v-if="worked" class="small soft">
      Students have worked on {{ only ? 'it' : `${worked} of them` }}: {{ only ? 'it' : 'they' }} can be
      hidden, not removed.
    </p>
    <p v-else class="small ways">
      <template v-if="removing">
        <button class="link danger" type="button" @click="give(items, { state: 'deleted' })">
          {{ removeText }}
        </button>
        <button class="link" type="button" @click="removing = false">Keep</button>
      </template>
      <button v-else class="link" type="button" :disabled="isFixed" @click="removing = true">Remove …</button>
      <NuxtLink v-if="only && !isUnit(only)" :to="`/courses/${course.course.id}/items/${only.lineage}`"
        >Read it</NuxtLink
      >
    </p>
    <p v-if="isFixed" class="small soft">The institution fixes it: only its dates can be changed.</p>
  </section>
</template>

<style scoped>
dl {
  display: grid;
  grid-template-columns: 104px minmax(0, 1fr);
  gap: 5px 8px;
  align-items: center;
  margin: 8px 0 4px;
  font-size: 12.5px;
}
dd {
  margin: 0;
}
.text-box {
  height: 24px;
  padding: 0 6px;
}
.fault,
.danger {
  color: var(--buoy);
}
.danger {
  font-weight: 600;
}
p {
  margin: 4px 0;
}
.ways {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 14px;
}
</style>
