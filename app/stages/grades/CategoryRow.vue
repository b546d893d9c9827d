<script setup lang="ts">
import type { GradesDecisions, PlannedCategory } from '~~/core/grading/plan'
import NumberCell from './NumberCell.vue'

/** A category: what both sides have, and what the shell will have. */
const props = defineProps<{
  line: PlannedCategory
  byWeights: boolean
  held: boolean
  mayEdit: boolean
  first: boolean
  last: boolean
  added: boolean
  /** The shell's categories that nothing meets yet. */
  free: readonly PlannedCategory[]
}>()
const emit = defineEmits<{
  change: [changed: GradesDecisions['categories'][string]]
  hold: [holds: boolean]
  move: [step: number]
  whose: [whose: 'source' | 'shell']
  pair: [shell: string | null]
  takeBack: []
}>()
const can = computed(() => props.mayEdit && !props.line.fixed)
const weightText = (weight: number | null | undefined): string =>
  weight === null || weight === undefined ? '–' : pointsText(weight)
const title = ref('')
watch(
  () => props.line.title,
  value => {
    title.value = value
  },
  { immediate: true },
)
function rename(): void {
  const wanted = title.value.trim()
  if (wanted && wanted !== props.line.title) emit('change', { title: wanted })
  else title.value = props.line.title
}
const meets = computed({
  get: () => (props.line.source && props.line.shell ? props.line.shell.lineage : 'none'),
  set: value => emit('pair', value === 'none' ? null : value),
})
const partners = computed(() => [
  ...(props.line.source && props.line.shell ? [props.line] : []),
  ...props.free.filter(each => each.lineage !== props.line.lineage),
])
const drops = (value: number | null): number => Math.round((value ?? 0) / 10_000)
</script>

<template>
  <tr>
    <th scope="row">
      <input
        v-model="title"
        class="title"
        :disabled="!can"
        :aria-label="`Name of ${line.title}`"
        maxlength="200"
        @change="rename"
        @keydown.enter="rename"
      />
      <span v-if="line.fixed" class="soft small">fixed by the institution</span>
      <span v-else-if="line.source && line.shell && line.source.title !== line.shell.title" class="soft small"
        >in the old course “{{ line.source.title }}”</span
      >
      <span v-else-if="!line.source && line.shell" class="soft small">only in the shell</span>
      <button v-if="added" class="link small" type="button" :disabled="!mayEdit" @click="emit('takeBack')">
        Take {{ line.title }} back
      </button>
      <label v-if="line.source && partners.length && !line.fixed" class="small soft meets">
        meets
        <ElSelect
          v-model="meets"
          size="small"
          :disabled="!mayEdit"
          :aria-label="`What ${line.title} meets in the shell`"
        >
          <ElOption value="none" label="none of the shell’s" />
          <ElOption
            v-for="each in partners"
            :key="each.lineage"
            :value="each.lineage"
            :label="each.shell?.title ?? each.title"
          />
        </ElSelect>
      </label>
      <span v-if="line.settle" class="small">
        <b class="settle">Both have rules for it that differ.</b>
        <button class="link" type="button" :disabled="!mayEdit" @click="emit('whose', 'source')">
          Take the old course’s
        </button>
        ·
        <button class="link" type="button" :disabled="!mayEdit" @click="emit('whose', 'shell')">
          Keep the shell’s
        </button>
      </span>
    </th>
    <td class="number soft" data-column="Old course">{{ weightText(line.source?.weight) }}</td>
    <td class="number soft" data-column="Shell now">
      {{ line.shell ? weightText(line.shell.weight) : 'new' }}
    </td>
    <td v-if="byWeights" class="number" data-column="Weight">
      <span v-if="line.exempt" class="soft">0</span>
      <NumberCell
        v-else
        :value="line.weight"
        :label="`Weight of ${line.title}`"
        :disabled="!can"
        @change="weight => emit('change', { weight: weight ?? 0 })"
      />
    </td>
    <td v-if="byWeights" data-column="Hold">
      <ElCheckbox
        :model-value="held"
        :disabled="!mayEdit || line.exempt"
        :aria-label="`Hold the weight of ${line.title}`"
        @change="value => emit('hold', Boolean(value))"
      />
    </td>
    <td class="drops" data-column="Drop low, high">
      <NumberCell
        :value="line.dropLowest * 10_000"
        :label="`How many of the lowest of ${line.title} are dropped`"
        :disabled="!can"
        :most="9_990_000"
        @change="value => emit('change', { dropLowest: drops(value) })"
      />
      <NumberCell
        :value="line.dropHighest * 10_000"
        :label="`How many of the highest of ${line.title} are dropped`"
        :disabled="!can"
        :most="9_990_000"
        @change="value => emit('change', { dropHighest: drops(value) })"
      />
    </td>
    <td data-column="Items count">
      <ElSelect
        :model-value="line.within"
        size="small"
        class="within"
        :disabled="!can"
        :aria-label="`How the items of ${line.title} count`"
        @change="value => emit('change', { within: value })"
      >
        <ElOption value="points" label="by points" />
        <ElOption value="equal" label="all alike" />
      </ElSelect>
    </td>
    <td data-column="Exempt">
      <ElCheckbox
        :model-value="line.exempt"
        :disabled="!can"
        :aria-label="`${line.title} counts for nothing`"
        @change="value => emit('change', { exempt: Boolean(value) })"
      />
    </td>
    <td class="order">
      <button
        class="link"
        type="button"
        :disabled="!mayEdit || first"
        :aria-label="`Move ${line.title} up`"
        @click="emit('move', -1)"
      >
        ↑
      </button>
      <button
        class="link"
        type="button"
        :disabled="!mayEdit || last"
        :aria-label="`Move ${line.title} down`"
        @click="emit('move', 1)"
      >
        ↓
      </button>
    </td>
  </tr>
</template>

<style scoped>
th[scope='row'] {
  text-transform: none;
  letter-spacing: 0;
  font-size: 14px;
  font-weight: 500;
  border-bottom: 0;
}
th span {
  display: block;
}
tr td {
  border-bottom: 0;
}
.title {
  font: inherit;
  width: 100%;
  border: 0;
  border-bottom: 1px dotted var(--ink-soft);
  background: none;
  color: var(--ink);
  padding: 1px 0;
}
.title:disabled {
  border-color: transparent;
}
.drops {
  white-space: nowrap;
}
.drops :deep(.number) {
  width: 40px;
  margin-right: 4px;
}
.drops :deep(.number-cell) {
  display: inline-block;
}
.within {
  width: 96px;
}
.meets {
  display: flex;
  gap: 6px;
  align-items: center;
}
.meets :deep(.el-select) {
  width: 150px;
}
.order {
  white-space: nowrap;
}
.order .link {
  text-decoration: none;
  padding: 0 4px;
}
/* In one column nothing stands above: each says what it is. */
@media (max-width: 620px) {
  td[data-column] {
    display: grid;
    grid-template-columns: 120px 1fr;
    align-items: center;
    justify-items: start;
    text-align: left;
  }
  td[data-column]::before {
    content: attr(data-column);
    font-size: 13px;
    color: var(--ink-soft);
  }
  td.drops[data-column] {
    grid-template-columns: 120px auto auto 1fr;
  }
}
</style>
