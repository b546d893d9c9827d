<script setup lang="ts">
import {
  answerOf,
  decisionOf,
  type Trace,
  type TraceAnswer,
  type TraceDecisions,
} from '~~/core/student-data/traces/trace'
import { actText, doubtText, happensText, placeText, shownAs, tableKindsText } from './trace-words'

/** A trace in its context, what happens to it, and, where it is selected, what else can. */
const props = defineProps<{
  trace: Trace
  answers: TraceDecisions
  selected: boolean
  asking: boolean
  /** Somebody asked for what cannot be done with it. */
  cannot: boolean
  /** How many places the same name alone stands in, this one among them. */
  same: number
  /** The course stays where it is: no file of it can be left behind. */
  inPlace: boolean
  disabled: boolean
}>()
const emit = defineEmits<{
  select: []
  settle: [does: TraceAnswer, because?: string, all?: boolean]
  undo: []
  leave: []
  instead: []
  cancel: []
}>()
/** What most traces stay for: each is a press. */
const reasons = ['a person in public life', 'a work that is cited', 'no student of ours', 'they agreed to it']
const because = ref('')
const input = ref<{ focus: () => void }>()
const answer = computed(() => answerOf(props.trace, props.answers))
const decided = computed(() => decisionOf(props.trace, props.answers))
const shown = computed(() => shownAs(props.trace, props.answers))
const others = computed(() =>
  props.trace.can.filter(can => can !== answer.value || (can === 'keep' && !decided.value)),
)
const isFile = computed(
  () => !props.inPlace && props.trace.entity === 'item' && props.trace.itemKind === 'file',
)
const isReadOnly = computed(() => !props.trace.can.includes('remove'))
watch(
  () => props.asking,
  async asks => {
    if (!asks) return
    because.value = decided.value?.because ?? ''
    await nextTick()
    input.value?.focus()
  },
)
const keep = (why: string): void => emit('settle', 'keep', why)
</script>

<template>
  <div class="line" role="option" :aria-selected="selected" :class="{ selected }" @click="emit('select')">
    <div class="where">
      <span class="title"
        ><KindMark v-if="trace.itemKind" :kind="trace.itemKind" /><bdi>{{ trace.title }}</bdi></span
      >
      <span class="soft small">{{ placeText(trace) }}</span>
    </div>
    <p class="what">
      <template v-if="trace.kinds"
        ><mark>{{ tableKindsText(trace) }}</mark></template
      >
      <template v-else
        ><bdi>{{ shown.before }}</bdi
        ><span :class="{ goes: shown.goes }"
          ><bdi>{{ shown.lead }}</bdi
          ><mark :class="{ weak: trace.weight !== 'sure' }"
            ><bdi>{{ shown.text }}</bdi></mark
          ><bdi>{{ shown.tail }}</bdi></span
        ><ins v-if="shown.instead"
          ><bdi>{{ shown.instead }}</bdi></ins
        ><bdi>{{ shown.after }}</bdi></template
      >
    </p>
    <div class="happens">
      <b v-if="decided?.does !== 'keep' && answer !== 'keep'" :class="answer === null ? 'open' : 'done'">{{
        happensText(trace, answers)
      }}</b>
      <span v-else class="soft">{{ happensText(trace, answers) }}</span>
      <span
        v-if="doubtText(trace) && (answer === null || !decided) && trace.weight !== 'sure'"
        class="soft small"
        >{{ doubtText(trace) }}</span
      >
      <span v-else-if="answer === null" class="soft small">{{ doubtText(trace) }}</span>
      <span v-if="decided?.by" class="soft small">{{ decided.by }}</span>
      <form v-if="asking" class="why" @submit.prevent="keep(because)" @keydown.esc.stop="emit('cancel')">
        <label
          >Why it stays<ElInput
            ref="input"
            v-model="because"
            size="small"
            maxlength="200"
            placeholder="as a court case"
        /></label>
        <span class="acts small">
          <button class="link" type="submit" :disabled="because.trim() === ''">Keep it</button>
          <button
            v-for="reason in reasons"
            :key="reason"
            class="link"
            type="button"
            @click.stop="keep(reason)"
          >
            {{ reason }}
          </button>
        </span>
      </form>
      <template v-else-if="selected && !disabled">
        <span v-if="cannot" class="small settle" role="status"
          >Northtide can read this file, not change it.
          {{
            isFile
              ? 'Leave it behind, take another in its place, or keep the name and say why.'
              : 'Keep the name, and say why.'
          }}</span
        >
        <span class="acts small">
          <button
            v-for="can in others"
            :key="can"
            class="link"
            type="button"
            @click.stop="emit('settle', can)"
          >
            {{ actText(trace, can) }}
          </button>
          <button v-if="isFile" class="link" type="button" @click.stop="emit('leave')">
            Leave the file behind
          </button>
          <button v-if="isFile && isReadOnly" class="link" type="button" @click.stop="emit('instead')">
            Take another file in its place
          </button>
          <button
            v-if="decided && trace.can.length > 1"
            class="link"
            type="button"
            @click.stop="emit('undo')"
          >
            Undo this choice
          </button>
        </span>
        <span v-if="same > 1" class="acts small">
          <button
            v-if="trace.can.includes('role')"
            class="link"
            type="button"
            @click.stop="emit('settle', 'role', '', true)"
          >
            Say “a student” in all {{ same }} places of “{{ trace.text }}”
          </button>
          <button class="link" type="button" @click.stop="emit('settle', 'keep', 'no student of ours', true)">
            Keep all {{ same }}: no student of ours
          </button>
        </span>
      </template>
    </div>
  </div>
</template>

<style scoped>
.line {
  display: grid;
  grid-template-columns: var(--columns);
  gap: 14px;
  padding: 9px 8px;
  border-bottom: 1px solid var(--rule);
  content-visibility: auto;
  contain-intrinsic-size: auto 52px;
}
.selected {
  background: var(--tide-wash);
}
.where,
.happens {
  display: flex;
  flex-direction: column;
  gap: 2px;
  min-width: 0;
}
.title {
  display: flex;
  gap: 7px;
  align-items: baseline;
  overflow-wrap: anywhere;
}
.what {
  font-family: var(--serif);
  font-size: 15.5px;
  overflow-wrap: anywhere;
}
mark {
  background: var(--buoy-wash);
  color: inherit;
  border-bottom: 1.5px solid var(--buoy);
}
mark.weak {
  background: var(--brass-wash);
  border-bottom-color: var(--brass);
}
.goes {
  text-decoration: line-through;
  text-decoration-color: var(--buoy);
  text-decoration-thickness: 1px;
}
ins {
  margin-left: 5px;
  text-decoration: none;
  color: var(--tide-text);
}
.open {
  color: var(--brass-text);
}
.done {
  color: var(--tide-text);
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 12px;
}
.why label {
  display: block;
  font-size: 12.5px;
}
@media (max-width: 620px) {
  .line {
    grid-template-columns: minmax(0, 1fr);
    gap: 4px;
  }
}
</style>
