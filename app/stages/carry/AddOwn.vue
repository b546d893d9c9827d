<script setup lang="ts">
import type { ItemKind } from '~~/core/course/model'
import { madeKinds, madeThing } from '~~/core/carry/added'
import { useStagePlan } from '../plan/store'
import type { ShownRow } from './carry'

/** Adds a unit or an item that neither course has. What is selected says where it goes. */
const props = defineProps<{ mayEdit: boolean; current: ShownRow | undefined }>()
const emit = defineEmits<{ show: [lineage: string] }>()
const { store } = useStagePlan()
const kind = ref<ItemKind | 'unit'>('unit')
const title = ref('')
const tried = ref(false)
/** The unit that the selected row is, or stands in, by the key that things go into it by. */
const unit = computed(() => {
  const rows = store.rows
  const at = rows.findIndex(row => row.key === props.current?.lineage)
  const found = rows.slice(0, at + 1).findLast(row => row.type === 'unit' && row.lineage !== null)
  return (
    found && { key: found.source?.lineage ?? found.key, title: (found.shell ?? found.source)?.title ?? '' }
  )
})
const goesInto = computed(() => (kind.value === 'unit' ? null : (unit.value?.key ?? null)))
function add(): void {
  tried.value = true
  const parsed = madeThing.safeParse({
    kind: kind.value === 'unit' ? null : kind.value,
    title: title.value,
  })
  if (!parsed.success) return
  const key = store.make(parsed.data, goesInto.value)
  title.value = ''
  tried.value = false
  emit('show', key)
}
</script>

<template>
  <h2>Add something new</h2>
  <form @submit.prevent="add">
    <dl class="settings">
      <dt>What</dt>
      <dd>
        <ElSelect v-model="kind" size="small" :disabled="!mayEdit" aria-label="What is added">
          <ElOption value="unit" label="unit" />
          <ElOption v-for="each in madeKinds" :key="each" :value="each" :label="kindWords(each)[0]" />
        </ElSelect>
      </dd>
      <dt>Called</dt>
      <dd>
        <ElInput
          v-model="title"
          size="small"
          :disabled="!mayEdit"
          maxlength="500"
          aria-label="Name of what is added"
        />
      </dd>
    </dl>
    <p v-if="tried && !title.trim()" class="small fault" role="alert">Give it a name first.</p>
    <p class="small">
      <button class="link" type="submit" :disabled="!mayEdit">
        {{ kind === 'unit' ? 'Add the unit' : `Add the ${kindWords(kind)[0]}` }}
      </button>
      <span class="soft">
        <template v-if="kind === 'unit'"> below the other units</template>
        <template v-else-if="unit"> to “{{ unit.title }}”</template>
        <template v-else> outside the units</template>
      </span>
    </p>
  </form>
</template>

<style scoped>
form {
  margin-bottom: 14px;
}
</style>
