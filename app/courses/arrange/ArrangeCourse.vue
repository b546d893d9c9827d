<script setup lang="ts">
import type { CourseReply } from '~~/shared/api/courses'
import type { EditDone, EditsReply, NewCourseEdit } from '~~/shared/api/edits'
import { useSelection } from '~/stages/date/selection'
import AddThing from './AddThing.vue'
import RenamePattern from './RenamePattern.vue'
import { childrenIn, moveAmong } from './arrange'

/** What a course holds, renamed, moved and added to in place; each change can be taken back. */
const props = defineProps<{ course: CourseReply }>()
const emit = defineEmits<{ changed: [] }>()
const id = computed(() => props.course.course.id)
const nodes = computed(() => props.course.nodes)
const years = computed(() => yearsOfClasses(props.course.course.term))
const list = ref<HTMLElement>()
const { selected, select, move } = useSelection(nodes, lineage => {
  const at = nodes.value.findIndex(node => node.lineage === lineage)
  list.value?.children[at]?.scrollIntoView({ block: 'nearest' })
})
const current = computed(() => nodes.value.find(node => node.lineage === selected.value) ?? null)
const edits = useLoaded(() => api.get<EditsReply>(`/courses/${id.value}/edits`))
watch(id, () => void edits.refresh(), { immediate: true })
const told = ref('')
const acting = useAction(async (work: () => Promise<unknown>) => {
  told.value = ''
  await work()
  emit('changed')
  await edits.refresh()
})
const send = (edit: NewCourseEdit): Promise<boolean> =>
  acting.run(async () => {
    const { lineage } = await api.post<EditDone>(`/courses/${id.value}/edits`, edit)
    if (lineage !== null) select(lineage)
  })
const latest = computed(() => edits.data.value?.edits[0] ?? null)
function undo(): void {
  const edit = latest.value
  if (!edit) return
  void acting.run(async () => {
    await api.delete(`/courses/${id.value}/edits/${edit.id}`)
    told.value = `Taken back: ${edit.words}.`
  })
}
const title = ref('')
watch(
  [() => current.value?.lineage, () => current.value?.title],
  () => {
    title.value = current.value?.title ?? ''
  },
  { immediate: true },
)
function rename(): void {
  const node = current.value
  const wanted = title.value.trim()
  if (!node) return
  if (wanted === '' || wanted === node.title) title.value = node.title
  else void send({ does: 'rename', titles: { [node.lineage]: wanted } })
}
function reorder(step: -1 | 1): void {
  const place = current.value && moveAmong(nodes.value, current.value, step)
  if (place && current.value) void send({ does: 'move', lineage: current.value.lineage, ...place })
}
const units = computed(() => nodes.value.filter(node => node.type === 'unit'))
const parent = computed({
  get: () => current.value?.parent ?? 'top',
  set: value => {
    const node = current.value
    const into = value === 'top' ? null : value
    if (node)
      void send({
        does: 'move',
        lineage: node.lineage,
        parent: into,
        after: childrenIn(nodes.value, into).at(-1)?.lineage ?? null,
      })
  },
})
const nameBox = ref<{ focus: () => void }>()
const keysFor = (keys: string[], does: string, run: () => void) => keys.map(key => ({ key, does, run }))
useKeys([
  ...keysFor(['j', 'ArrowDown'], 'next row', () => move(1)),
  ...keysFor(['k', 'ArrowUp'], 'row before', () => move(-1)),
  { key: 'e', does: 'edit its name', run: () => nameBox.value?.focus() },
  { key: 'ctrl+ArrowUp', does: 'move it up', run: () => reorder(-1) },
  { key: 'ctrl+ArrowDown', does: 'move it down', run: () => reorder(1) },
  { key: 'ctrl+z', does: 'take the latest change back', run: undo },
])
</script>

<template>
  <div class="beside">
    <div>
      <p v-if="!nodes.length" class="soft">This course holds nothing yet. Add a unit at the right.</p>
      <ul
        v-else
        ref="list"
        class="outline"
        role="listbox"
        tabindex="0"
        aria-label="Units and items"
        :aria-activedescendant="selected ? `row-${selected}` : undefined"
      >
        <li
          v-for="node in nodes"
          :id="`row-${node.lineage}`"
          :key="node.lineage"
          role="option"
          :aria-selected="node.lineage === selected"
          :class="{ cursor: node.lineage === selected, unit: node.type === 'unit' }"
          :style="{ paddingLeft: `${8 + 18 * node.depth}px` }"
          @click="select(node.lineage)"
        >
          <KindMark :kind="node.kind" :exam="node.exam" />
          <bdi>{{ node.title }}</bdi>
          <span v-if="node.points !== null" class="soft small">{{ pointsCounted(node.points) }}</span>
          <span v-if="node.due" class="soft small">due {{ dayText(node.due, years) }}</span>
          <span v-if="node.fixed" class="soft small">fixed by the institution</span>
        </li>
      </ul>
    </div>
    <aside>
      <ActionProblem :problem="acting.problem.value" />
      <p v-if="told" class="small kept" role="status">{{ told }}</p>
      <template v-if="current">
        <p class="caps">Selected</p>
        <h2>
          <bdi>{{ current.title }}</bdi>
        </h2>
        <p v-if="current.fixed" class="small soft">
          The institution fixed it: it keeps its name and its place.
        </p>
        <template v-else>
          <dl class="settings">
            <dt>Called</dt>
            <dd>
              <ElInput
                ref="nameBox"
                v-model="title"
                size="small"
                maxlength="500"
                aria-label="What it is called"
                @change="rename"
              />
            </dd>
            <dt>Stands in</dt>
            <dd>
              <ElSelect v-model="parent" size="small" aria-label="In which unit it stands">
                <ElOption value="top" label="no unit" />
                <ElOption
                  v-for="unit in units.filter(each => each.lineage !== current?.lineage)"
                  :key="unit.lineage"
                  :value="unit.lineage"
                  :label="unit.title"
                />
              </ElSelect>
            </dd>
          </dl>
          <p class="small">
            <button class="link" type="button" @click="reorder(-1)">Move it up</button> or
            <button class="link" type="button" @click="reorder(1)">down</button>
          </p>
        </template>
      </template>
      <AddThing
        :comes-hidden="course.course.origin !== 'template'"
        :categories="course.categories"
        :calendar="course.calendar"
        :meetings="course.course.meetings"
        :unit="
          current?.type === 'unit' ? current : (units.find(unit => unit.lineage === current?.unit) ?? null)
        "
        :busy="acting.busy.value"
        @add="send"
      />
      <RenamePattern
        :nodes="nodes"
        :busy="acting.busy.value"
        @rename="titles => send({ does: 'rename', titles })"
      />
      <h2>Changes here</h2>
      <p v-if="!latest" class="small soft">Nothing has been changed here yet.</p>
      <ol v-else class="edits small" aria-label="Changes here">
        <li v-for="edit in edits.data.value?.edits.slice(0, 8)" :key="edit.id">
          {{ edit.by }} {{ edit.words }} <span class="soft">{{ instantText(edit.at) }}</span>
          <button
            v-if="edit.id === latest.id"
            class="link"
            type="button"
            :disabled="acting.busy.value"
            @click="undo"
          >
            Take this back
          </button>
        </li>
      </ol>
    </aside>
  </div>
</template>

<style scoped>
.beside {
  --aside: 300px;
}
.outline {
  list-style: none;
  border-top: 1.5px solid var(--rule-strong);
  outline-offset: 2px;
}
.outline li {
  display: flex;
  gap: 8px;
  align-items: baseline;
  padding: 5px 8px;
  border-bottom: 1px solid var(--rule);
  cursor: default;
}
.outline .unit bdi {
  font: 600 16px/1.2 var(--serif);
}
.outline .cursor {
  background: var(--tide-wash);
}
aside :deep(h2) {
  margin: 16px 0 8px;
}
aside .caps + h2 {
  margin-top: 0;
}
.edits {
  list-style: none;
}
.edits li {
  padding: 4px 0;
  border-bottom: 1px solid var(--rule);
}
</style>
