<script setup lang="ts">
import type { ItemKind } from '~~/core/course/model'
import { madeThing } from '~~/core/carry/added'
import NewThing from '~/ui/made/NewThing.vue'
import { useStagePlan } from '../plan/store'
import type { ShownRow } from './carry'

/** Adds a unit or an item that neither course has. What is selected says where it goes. */
const props = defineProps<{ mayEdit: boolean; current: ShownRow | undefined }>()
const emit = defineEmits<{ show: [lineage: string] }>()
const { store } = useStagePlan()
const kind = ref<ItemKind | 'unit'>('unit')
const title = ref('')
/** The unit that the selected row is, or stands in, by the key that things go into it by. */
const unit = computed(() => {
  const rows = store.rows
  const at = rows.findIndex(row => row.key === props.current?.lineage)
  const found = rows.slice(0, at + 1).findLast(row => row.type === 'unit' && row.lineage !== null)
  return (
    found && { key: found.source?.lineage ?? found.key, title: (found.shell ?? found.source)?.title ?? '' }
  )
})
const isUnit = computed(() => kind.value === 'unit')
function add(): void {
  const thing = madeThing.parse({ kind: isUnit.value ? null : kind.value, title: title.value })
  const key = store.make(thing, isUnit.value ? null : (unit.value?.key ?? null))
  title.value = ''
  emit('show', key)
}
</script>

<template>
  <NewThing v-model:kind="kind" v-model:title="title" :unit="unit" :disabled="!mayEdit" @add="add" />
</template>
