<script setup lang="ts">
import type { ColumnRoles, DateTable } from '~~/core/formats/sheet/calendar'

/** What the columns of a table of dates mean: guessed, for a person to confirm or say otherwise. */
const props = defineProps<{ table: DateTable }>()
const roles = defineModel<ColumnRoles>('roles', { required: true })
const confirmed = defineModel<boolean>('confirmed', { required: true })
const columns = computed(() => props.table.header.map((label, value) => ({ value, label })))
const set = (change: Partial<ColumnRoles>): void => {
  roles.value = { ...roles.value, ...change }
}
const none = -1
function meaning(column: number): string {
  const { title, first, last } = roles.value
  if (column === title) return 'name'
  if (column === first) return 'first day'
  return column === last ? 'last day' : ''
}
</script>

<template>
  <section>
    <h2>What its columns mean</h2>
    <p v-if="table.ambiguous" class="note brass">
      This table does not show which number is the day and which the month. Look at the days below and choose
      the right order.
    </p>
    <p v-else class="soft">
      Northtide guessed this from the table. Change what is wrong, and the days below follow.
    </p>
    <table class="ruled small rows">
      <thead>
        <tr>
          <th v-for="(name, column) in table.header" :key="column" scope="col">
            {{ name }}<span v-if="meaning(column)" class="kept"> = {{ meaning(column) }}</span>
          </th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="row in table.rows.slice(0, 4)" :key="row.number">
          <td v-for="(name, column) in table.header" :key="column">{{ row.cells[column] }}</td>
        </tr>
      </tbody>
    </table>
    <dl class="choices">
      <dt>Name</dt>
      <dd>
        <ElSelect
          :model-value="roles.title"
          aria-label="Column of the name"
          @change="value => set({ title: value })"
          ><ElOption v-for="column in columns" :key="column.value" v-bind="column"
        /></ElSelect>
      </dd>
      <dt>First day</dt>
      <dd>
        <ElSelect
          :model-value="roles.first"
          aria-label="Column of the first day"
          @change="value => set({ first: value })"
          ><ElOption v-for="column in columns" :key="column.value" v-bind="column"
        /></ElSelect>
      </dd>
      <dt>Last day</dt>
      <dd>
        <ElSelect
          :model-value="roles.last ?? none"
          aria-label="Column of the last day"
          @change="value => set({ last: value === none ? null : value })"
          ><ElOption :value="none" label="none: one day each" /><ElOption
            v-for="column in columns"
            :key="column.value"
            v-bind="column"
        /></ElSelect>
      </dd>
      <dt>Order</dt>
      <dd>
        <ElSelect
          :model-value="roles.order"
          aria-label="Order of day and month"
          @change="value => set({ order: value })"
          ><ElOption value="day-month" label="day, then month (15/2)" /><ElOption
            value="month-day"
            label="month, then day (2/15)"
        /></ElSelect>
      </dd>
    </dl>
    <ElCheckbox v-model="confirmed" class="confirm">Use these columns</ElCheckbox>
  </section>
</template>

<style scoped>
.choices {
  display: grid;
  grid-template-columns: auto 1fr auto 1fr;
  gap: 8px 14px;
  align-items: center;
  margin: 10px 0 0;
  max-width: 720px;
}
dd {
  margin: 0;
}
.rows {
  max-width: 720px;
  margin-top: 8px;
}
.rows td {
  overflow-wrap: anywhere;
}
.confirm {
  margin-top: 10px;
}
@media (max-width: 620px) {
  .beside,
  form,
  section > div {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
