<script setup lang="ts">
import type { WallTime } from '~~/core/calendar/day'
import { isoOf } from '~~/core/calendar/day'
import { dateFields, type DateField as Field } from '~~/core/course/dates'
import type { FillStep } from '~~/core/dates/hand/moves'
import { useItemContexts } from '~/composables/today'
import DateField from '~/ui/DateField.vue'
import { useLedgerSource } from './source'
import FollowChoice from './FollowChoice.vue'
import type { useHand } from './hand'
import { isUnit, type LedgerItem } from './ledger'

/** What can be done with the dates of several items at once. */
const props = defineProps<{
  chosen: readonly LedgerItem[]
  /** How many of them the filter hides. */
  outOfSight: number
  /** The row that is looked at: its dates can be given to the others. */
  current: LedgerItem | null
  hand: ReturnType<typeof useHand>
}>()
defineEmits<{ none: []; dropOutOfSight: [] }>()
const { meetings, opensOn, following } = props.hand
const base = useLedgerSource()
/** Its lists are slow to draw: how many are chosen is said before. */
const isReady = useAfterFirstPaint()
const field = ref<Field>('due')
const step = ref<FillStep>('same')
const contexts = useItemContexts(
  () => base.terms?.target ?? null,
  () => base.meetings,
)
/** `4 items`, `2 units and 4 items`. */
const chosenText = computed(() => {
  const units = props.chosen.filter(isUnit).length
  const items = props.chosen.length - units
  return [units && counted(units, 'unit'), items && counted(items, 'item')].filter(Boolean).join(' and ')
})
const first = computed(() => props.chosen[0] ?? null)
const steps = computed(() => {
  const all: { value: FillStep; label: string }[] = [
    { value: 'same', label: 'the same day' },
    { value: 'day', label: 'each a day later' },
    { value: 'week', label: 'each a week later' },
    ...(meetings.value.length > 0 ? [{ value: 'meeting' as const, label: 'each at the next class' }] : []),
  ]
  return all
})
const shifts = [
  { days: -1, words: 'A day earlier' },
  { days: 1, words: 'A day later' },
  { days: -7, words: 'A week earlier' },
  { days: 7, words: 'A week later' },
]
const letGoText = computed(() => {
  if (!base.words.hold) return base.words.letGo
  return `Let ${held.value === props.chosen.length ? 'them' : `the ${held.value} held`} go`
})
const held = computed(() => props.chosen.filter(item => item.held).length)
/** Set once a date was given to all, so that the field is empty for the next one. */
const given = ref<string | null>(null)
function set(at: string | null): void {
  props.hand.set(field.value, at as WallTime | null)
  given.value = null
}
</script>

<template>
  <section class="note tide" aria-label="Chosen items">
    <p class="caps">Chosen</p>
    <h3>{{ chosenText }}</h3>
    <p v-if="outOfSight" class="small settle" role="status">
      {{ outOfSight }} of them {{ outOfSight === 1 ? 'is' : 'are' }} out of sight and
      {{ outOfSight === 1 ? 'changes' : 'change' }} too.
      <button class="link" type="button" @click="$emit('dropOutOfSight')">
        Drop {{ outOfSight === 1 ? 'it' : `these ${outOfSight}` }}
      </button>
    </p>
    <div class="pairs">
      <button
        v-for="{ days, words } in shifts"
        :key="days"
        class="link"
        type="button"
        @click="hand.move(days, null)"
      >
        {{ words }}
      </button>
    </div>
    <template v-if="isReady">
      <FollowChoice v-model="following" label="They move" />
      <dl class="settings">
        <dt><label for="chosen-field">Date</label></dt>
        <dd>
          <ElSelect id="chosen-field" v-model="field" size="small" aria-label="Which date">
            <ElOption v-for="each in dateFields" :key="each" :value="each" :label="fieldName(each)" />
          </ElSelect>
        </dd>
        <dt>for all</dt>
        <dd>
          <DateField
            :model-value="given"
            :context="contexts[field]"
            :label="`${fieldName(field)} for all chosen`"
            placeholder="fri wk 5"
            @update:model-value="set"
          />
        </dd>
        <dt><label for="chosen-fill">Fill down</label></dt>
        <dd class="fill">
          <ElSelect id="chosen-fill" v-model="step" size="small" aria-label="How it is filled down">
            <ElOption v-for="each in steps" :key="each.value" :value="each.value" :label="each.label" />
          </ElSelect>
          <button
            class="link"
            type="button"
            :disabled="!first?.planned[field]"
            @click="hand.fillDown(field, step)"
          >
            Fill down
          </button>
        </dd>
      </dl>
    </template>
    <slot v-if="isReady" />
    <p v-if="first && !first.planned[field]" class="small soft">
      <bdi>{{ first.node.title }}</bdi> comes first and has no such date.
    </p>
    <p class="acts">
      <button v-if="current" class="link" type="button" @click="hand.giveDatesOf(current)">
        Give them the dates of <bdi>{{ current.node.title }}</bdi>
      </button>
      <button v-if="opensOn !== null" class="link" type="button" @click="hand.openThroughout">
        Open them from {{ dayText(isoOf(opensOn)) }}, never closing
      </button>
      <button class="link" type="button" @click="hand.spread('days')">Spread each week over its days</button>
      <button v-if="meetings.length" class="link" type="button" @click="hand.spread('meetings')">
        Spread each week over its classes
      </button>
      <button v-if="held < chosen.length && base.words.hold" class="link" type="button" @click="hand.hold">
        Hold them where they are
      </button>
      <button v-if="held" class="link" type="button" @click="hand.letGo">
        {{ letGoText }}
      </button>
      <button class="link" type="button" @click="$emit('none')">Choose none</button>
    </p>
  </section>
</template>

<style scoped>
.caps {
  margin: 0;
}
.pairs {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 3px 10px;
  margin: 8px 0;
}
.acts {
  display: grid;
  gap: 4px;
  margin: 8px 0 0;
}
.fill {
  display: grid;
  gap: 4px;
}
.link[disabled] {
  color: var(--ink-soft);
  cursor: default;
}
</style>
