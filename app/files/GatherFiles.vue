<script setup lang="ts">
import { dateFields, type DateField } from '~~/core/course/dates'
import { asWall, isDay, saidFieldWords, saidFields, sayingKey, type SaidField } from '~~/core/gather/saying'
import type { GatherReply } from '~~/shared/api/gathering'
import { contributionWords, useGathered, type GatherChoices } from './gathering'

/** What files say of the items of a package, or of a course that is there: which count, what they disagree about, and what meets nothing. */
const props = defineProps<{
  reply: GatherReply
  /** What the items are of: by this name one chooses what it says itself. */
  packageFile: string
  /** The file that this page is about, where it is no package: it always counts. */
  own?: string
}>()
const isOfCourse = computed(() => props.own !== undefined)
const decided = defineModel<GatherChoices>({ required: true })
const { chosen, gathered, metOf, disagreements, unmet, likely, gets } = useGathered(
  () => props.reply,
  () => decided.value,
  () => props.packageFile,
)
const decide = (changed: Partial<GatherChoices>): void => {
  decided.value = { ...decided.value, ...changed }
}
const letters = computed(
  () => new Map(props.reply.files.map(({ name }, at) => [name, String.fromCharCode(65 + at)])),
)
const letterOf = (file: string): string => letters.value.get(file) ?? ''
const isDateField = (field: SaidField): field is DateField => dateFields.some(each => each === field)
const shownValue = (field: SaidField, value: string | null): string => {
  if (value === null) return isDateField(field) ? 'no date' : 'none'
  if (!isDateField(field)) return value
  const day = `${dayText(value)} ${value.slice(0, 4)}`
  return isDay(value) ? day : `${day}, ${value.slice(11)}`
}
/** What counts, with the usual time of day where no file gives one. */
const takenValue = (field: SaidField, value: string | null): string =>
  shownValue(field, value !== null && isDateField(field) ? asWall(field, value) : value)
const metText = (id: string): string => {
  const { met, of } = metOf.value.get(id) ?? { met: 0, of: 0 }
  return met === of
    ? `${counted(of, 'line')}, each about an item of it`
    : `${met} of ${counted(of, 'line')} ${met === 1 ? 'is about an item' : 'are about items'} of it`
}
const fileName = (file: string): string =>
  file === props.packageFile ? (isOfCourse.value ? 'the course' : 'the package') : file
const comesText = computed(() => {
  const { dates, points, categories } = gets.value
  return `${counted(dates, 'item')} with dates, ${points} with points, ${categories} in a category.`
})
const told = computed(() => gathered.value.items.filter(({ fields }) => Object.keys(fields).length > 0))
function setBeside(id: string, comes: boolean): void {
  const rest = decided.value.beside.filter(each => each !== id)
  decide({ beside: comes ? [...rest, id] : rest })
}
const pair = (key: string, identifier: string | null): void =>
  decide({ pairs: { ...decided.value.pairs, [key]: identifier } })
const believe = (key: string, file: string): void =>
  decide({ choices: { ...decided.value.choices, [key]: file } })
const orderWords = { 'day-month': 'day, then month (15/2)', 'month-day': 'month, then day (2/15)' }
const otherOrder = { 'day-month': 'month-day', 'month-day': 'day-month' } as const
const isOther = (id: string): boolean => decided.value.otherOrder.includes(id)
function setOrder(id: string, isOther: boolean): void {
  const rest = decided.value.otherOrder.filter(each => each !== id)
  decide({ otherOrder: isOther ? [...rest, id] : rest })
}
const unread = computed(() =>
  chosen.value.flatMap(({ name, unread: cells }) => cells.map(cell => ({ ...cell, file: name }))),
)
const far = computed(() => chosen.value.flatMap(file => file.far))
const unmetWhy = {
  none: 'no item is like it',
  several: 'several items are like it',
  taken: 'its item was met by another line',
}
</script>

<template>
  <section aria-labelledby="gather-head">
    <h2 id="gather-head">
      {{ isOfCourse ? 'What files say of the course' : 'What your other files say of it' }}
    </h2>
    <p v-if="!reply.files.length" class="soft">
      None of your other files says anything of a course. Send its line items (a OneRoster bundle), a course
      JSON or a table of items and due dates, and they come in together with the package.
      <NuxtLink to="/files">Send another file</NuxtLink>
    </p>
    <template v-else>
      <ul class="files">
        <li v-for="file in reply.files" :key="file.id">
          <ElCheckbox
            :model-value="decided.beside.includes(file.id)"
            :aria-label="`Bring ${file.name} in with it`"
            :disabled="file.id === own"
            @change="comes => setBeside(file.id, Boolean(comes))"
          >
            <b>{{ letterOf(file.name) }}</b> <bdi>{{ file.name }}</bdi>
          </ElCheckbox>
          <span class="soft small">{{ contributionWords[file.as] }} · {{ metText(file.id) }}</span>
          <span v-if="file.order" class="order small">
            <span class="brass">Its dates can be read two ways. Read them as</span>
            <ElRadioGroup
              :model-value="isOther(file.id)"
              :aria-label="`Order of day and month in ${file.name}`"
              @change="other => setOrder(file.id, Boolean(other))"
            >
              <ElRadio v-for="other in [false, true]" :key="String(other)" :value="other">{{
                orderWords[other ? otherOrder[file.order] : file.order]
              }}</ElRadio>
            </ElRadioGroup>
          </span>
        </li>
      </ul>
      <template v-if="chosen.length">
        <p v-if="!isOfCourse" role="status">Together: {{ comesText }}</p>
        <template v-if="disagreements.length">
          <h3>
            {{ counted(disagreements.length, 'thing') }} on which
            {{ isOfCourse ? 'a file and the course disagree' : 'files disagree' }}
          </h3>
          <table class="ruled">
            <thead>
              <tr>
                <th scope="col">Item</th>
                <th scope="col">What</th>
                <th scope="col">Which file counts</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="each in disagreements" :key="each.key">
                <td>{{ each.title }}</td>
                <td>{{ saidFieldWords[each.field] }}</td>
                <td>
                  <ElRadioGroup
                    :model-value="each.takes.file"
                    :aria-label="`${each.title}: ${saidFieldWords[each.field]}`"
                    @change="file => believe(each.key, String(file))"
                  >
                    <ElRadio
                      v-for="one in [each.takes, ...each.takes.others]"
                      :key="one.file"
                      :value="one.file"
                    >
                      {{ (one === each.takes ? takenValue : shownValue)(each.field, one.value) }}
                      <span class="soft small">{{ fileName(one.file) }}</span>
                    </ElRadio>
                  </ElRadioGroup>
                </td>
              </tr>
            </tbody>
          </table>
        </template>
        <template v-if="unmet.length">
          <h3>{{ counted(unmet.length, 'line meets', 'lines meet') }} no item</h3>
          <p class="soft small">
            What is paired with no item stays out. This page lists it again once the course is there.
          </p>
          <table class="ruled">
            <tbody>
              <tr v-for="{ saying, why } in unmet" :key="sayingKey(saying)">
                <td>
                  <bdi>{{ saying.title || saying.identifier }}</bdi>
                  <span class="soft small where"
                    >{{ saying.file }}, {{ saying.where }}:
                    {{
                      decided.pairs[sayingKey(saying)] === null ? 'you took it from its item' : unmetWhy[why]
                    }}</span
                  >
                </td>
                <td>
                  <ElSelect
                    :model-value="decided.pairs[sayingKey(saying)] ?? ''"
                    size="small"
                    filterable
                    placeholder="stays out"
                    :aria-label="`Item that ${saying.title || saying.where} is about`"
                    @change="(identifier: string) => pair(sayingKey(saying), identifier)"
                  >
                    <ElOption
                      v-for="item in reply.items"
                      :key="item.identifier"
                      :value="item.identifier"
                      :label="item.title"
                    />
                  </ElSelect>
                </td>
              </tr>
            </tbody>
          </table>
        </template>
        <details v-if="likely.length">
          <summary>
            {{ counted(likely.length, 'line meets', 'lines meet') }} an item by a title that is like its own
          </summary>
          <ul class="plain">
            <li v-for="{ saying, item } in likely" :key="sayingKey(saying)">
              <bdi>{{ saying.title }}</bdi> is about “<bdi>{{ item.title }}</bdi
              >”
              <button class="link small" type="button" @click="pair(sayingKey(saying), null)">Not so</button>
            </li>
          </ul>
        </details>
        <p v-for="cell in unread" :key="`${cell.file} ${cell.row} ${cell.column}`" class="small brass">
          {{ cell.file }}, row {{ cell.row }}, {{ cell.column }}: “{{ cell.cell }}” says nothing that could be
          read.
        </p>
        <p v-for="each in far" :key="each.where + each.message" class="small brass">
          {{ each.where }}: {{ each.message }}.
        </p>
        <details>
          <summary>Where each date, point and category comes from</summary>
          <table class="ruled values">
            <thead>
              <tr>
                <th scope="col">Item</th>
                <th v-for="field in saidFields" :key="field" scope="col">{{ saidFieldWords[field] }}</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="{ item, fields } in told" :key="item.identifier">
                <td>
                  <bdi>{{ item.title }}</bdi>
                </td>
                <td v-for="field in saidFields" :key="field">
                  <template v-if="fields[field]"
                    >{{ takenValue(field, fields[field]!.value) }}
                    <sup :title="fileName(fields[field]!.file)">{{
                      letterOf(fields[field]!.file)
                    }}</sup></template
                  >
                </td>
              </tr>
            </tbody>
          </table>
        </details>
      </template>
    </template>
  </section>
</template>

<style scoped>
.files {
  list-style: none;
  margin-bottom: 10px;
}
.order {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0 10px;
  flex-basis: 100%;
}
.files li {
  display: flex;
  flex-wrap: wrap;
  gap: 0 14px;
  align-items: center;
  border-bottom: 1px solid var(--rule);
  padding: 2px 0;
}
h3 {
  margin: 14px 0 4px;
}
.values {
  display: block;
  overflow-x: auto;
  font-size: 12px;
}
td {
  overflow-wrap: anywhere;
}
td :deep(.el-radio-group) {
  display: grid;
  justify-items: start;
}
td :deep(.el-select) {
  min-width: 220px;
}
.where {
  display: block;
}
sup {
  color: var(--tide-text);
  font-size: 9px;
}
.brass {
  color: var(--brass-text);
}
</style>
