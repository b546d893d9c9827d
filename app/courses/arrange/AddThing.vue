<script setup lang="ts">
import type { ItemKind } from '~~/core/course/model'
import { compileTerm } from '~~/core/calendar/term'
import type { WallTime } from '~~/core/calendar/day'
import type { Meeting, TermCalendar } from '~~/core/calendar/schema'
import { hasMadeText, madeKinds, madeTextAtMost, madeThing } from '~~/core/carry/added'
import type { OutlineNode } from '~~/core/course/outline'
import { parsePoints } from '~~/core/grading/points'
import type { NewCourseEdit } from '~~/shared/api/edits'
import { useItemContexts } from '~/composables/today'
import MomentField from '~/ui/DateField.vue'

/** A new unit, or a new item in the unit that is selected: title, dates, points, category and text. */
const props = defineProps<{
  categories: readonly { lineage: string; title: string }[]
  calendar: TermCalendar
  meetings: readonly Meeting[]
  unit: OutlineNode | null
  busy: boolean
}>()
const emit = defineEmits<{ add: [edit: NewCourseEdit] }>()
const kind = ref<ItemKind | 'unit'>('unit')
const blank = { title: '', points: '', text: '', category: 'none', exam: false }
const draft = reactive({ ...blank })
const opens = ref<WallTime | null>(null)
const due = ref<WallTime | null>(null)
const tried = ref(false)
const term = computed(() => compileTerm(props.calendar))
const contexts = useItemContexts(
  () => term.value,
  () => props.meetings,
)
const made = computed(() => (kind.value === 'unit' ? null : kind.value))
const points = computed(() => (draft.points.trim() === '' ? null : parsePoints(draft.points.trim())))
const isWrong = computed(() => draft.points.trim() !== '' && points.value === null)
function add(): void {
  tried.value = true
  const parsed = madeThing.safeParse({
    kind: made.value,
    title: draft.title,
    points: points.value,
    exam: draft.exam,
    text: hasMadeText(made.value) ? draft.text : '',
  })
  if (!parsed.success || isWrong.value) return
  const isItem = made.value !== null
  emit('add', {
    does: 'add',
    thing: parsed.data,
    parent: isItem ? (props.unit?.lineage ?? null) : null,
    category: isItem && draft.category !== 'none' ? draft.category : null,
    opens: isItem ? opens.value : null,
    due: isItem ? due.value : null,
  })
  Object.assign(draft, blank)
  opens.value = null
  due.value = null
  tried.value = false
}
</script>

<template>
  <h2>Add something new</h2>
  <form @submit.prevent="add">
    <dl class="settings">
      <dt>What</dt>
      <dd>
        <ElSelect v-model="kind" size="small" aria-label="What is added">
          <ElOption value="unit" label="unit" />
          <ElOption v-for="each in madeKinds" :key="each" :value="each" :label="kindWords(each)[0]" />
        </ElSelect>
      </dd>
      <dt>Called</dt>
      <dd>
        <ElInput v-model="draft.title" size="small" maxlength="500" aria-label="Name of what is added" />
        <span v-if="tried && !draft.title.trim()" class="small fault" role="alert"
          >Give it a name first.</span
        >
      </dd>
      <template v-if="made && made !== 'heading'">
        <dt>Opens</dt>
        <dd>
          <MomentField
            :model-value="opens"
            :context="contexts.opens"
            label="Opens"
            name="new-opens"
            placeholder="no date"
            @update:model-value="at => (opens = at as WallTime | null)"
          />
        </dd>
        <dt>Due</dt>
        <dd>
          <MomentField
            :model-value="due"
            :context="contexts.due"
            label="Due"
            name="new-due"
            placeholder="no date"
            @update:model-value="at => (due = at as WallTime | null)"
          />
        </dd>
        <dt>Points</dt>
        <dd>
          <ElInput v-model="draft.points" size="small" aria-label="Points" />
          <span v-if="isWrong" class="small fault" role="alert">A number, such as 10 or 7.5.</span>
        </dd>
        <dt>Category</dt>
        <dd>
          <ElSelect v-model="draft.category" size="small" aria-label="Its grade category">
            <ElOption value="none" label="in no category" />
            <ElOption
              v-for="each in categories"
              :key="each.lineage"
              :value="each.lineage"
              :label="each.title"
            />
          </ElSelect>
        </dd>
      </template>
    </dl>
    <ElInput
      v-if="hasMadeText(made)"
      v-model="draft.text"
      type="textarea"
      :rows="3"
      :maxlength="madeTextAtMost"
      placeholder="An empty line begins a new paragraph."
      aria-label="Its text"
    />
    <p class="small">
      <button class="link" type="submit" :disabled="busy">
        {{ made ? `Add the ${kindWords(made)[0]}` : 'Add the unit' }}
      </button>
      <span class="soft">
        <template v-if="!made"> below the other units</template>
        <template v-else-if="unit"> to “{{ unit.title }}”</template>
        <template v-else> outside the units</template>
      </span>
    </p>
  </form>
</template>
