<script setup lang="ts">
import type { ItemKind } from '~~/core/course/model'
import { noDates } from '~~/core/course/dates'
import { compileTerm } from '~~/core/calendar/term'
import type { Meeting, TermCalendar } from '~~/core/calendar/schema'
import { hasMadeText, madeThing } from '~~/core/carry/added'
import type { OutlineNode } from '~~/core/course/outline'
import type { NewCourseEdit } from '~~/shared/api/edits'
import { useItemContexts } from '~/composables/today'
import MadeFields, { type MadeFields as Fields } from '~/ui/made/MadeFields.vue'
import NewThing from '~/ui/made/NewThing.vue'

/** A new unit, or a new item in the unit that is selected: title, dates, points, category and text. */
const props = defineProps<{
  categories: readonly { lineage: string; title: string }[]
  calendar: TermCalendar
  meetings: readonly Meeting[]
  unit: OutlineNode | null
  busy: boolean
  /** Whether students do not see it at first. */
  comesHidden: boolean
}>()
const emit = defineEmits<{ add: [edit: NewCourseEdit] }>()
const kind = ref<ItemKind | 'unit'>('unit')
const title = ref('')
const blank: Fields = { points: null, exam: false, text: '', dates: noDates, category: null }
const fields = ref<Fields>(blank)
const isWrong = ref(false)
const added = ref(0)
const term = computed(() => compileTerm(props.calendar))
const contexts = useItemContexts(
  () => term.value,
  () => props.meetings,
)
const made = computed(() => (kind.value === 'unit' ? null : kind.value))
function add(): void {
  if (isWrong.value) return
  const { dates, category, text, ...own } = made.value === null ? blank : fields.value
  const thing = madeThing.parse({
    ...own,
    kind: made.value,
    title: title.value,
    text: hasMadeText(made.value) ? text : '',
  })
  emit('add', {
    does: 'add',
    thing,
    parent: made.value === null ? null : (props.unit?.lineage ?? null),
    category,
    opens: dates.opens,
    due: dates.due,
  })
  title.value = ''
  fields.value = blank
  added.value++
}
</script>

<template>
  <NewThing v-model:kind="kind" v-model:title="title" :unit="unit" :disabled="busy" @add="add">
    <MadeFields
      :key="added"
      v-model:wrong="isWrong"
      :kind="made"
      :fields="fields"
      :categories="categories"
      :contexts="contexts"
      :disabled="busy"
      @change="changed => (fields = { ...fields, ...changed })"
    />
  </NewThing>
  <p v-if="comesHidden" class="small soft">
    It comes hidden from students. Make it visible in the ledger, once it is ready.
  </p>
</template>
