<script setup lang="ts">
import { itemKinds } from '~~/core/course/model'
import { isDated, isUnit, type LedgerItem } from './ledger'
import { useLedgerSource } from './source'

/** What the ledger and the crossing show: items by words, by kind, by unit, or only what is to settle. */
const props = defineProps<{
  items: readonly LedgerItem[]
  units: ReadonlyMap<string, string>
  shown: number
  chosen: number
  settle: number
  isNarrowed: boolean
}>()
defineEmits<{ chooseShown: []; chooseNone: []; showAll: [] }>()
const find = defineModel<string>('find', { required: true })
const kind = defineModel<string>('kind', { required: true })
const unit = defineModel<string>('unit', { required: true })
const onlySettle = defineModel<boolean>('onlySettle', { required: true })
const base = useLedgerSource()
const input = ref<HTMLInputElement>()
const kinds = computed(() => itemKinds.filter(each => props.items.some(item => item.node.kind === each)))
/** Units are a kind of row of their own, where they open on dates. */
const hasOpenings = computed(() => props.items.some(item => isUnit(item) && isDated(item)))
const unitsThere = computed(() => {
  const there = new Set(props.items.map(item => item.node.unit))
  return [...props.units].filter(([lineage]) => there.has(lineage))
})
defineExpose({ focus: () => input.value?.focus() })
</script>

<template>
  <div class="tools small" role="group" aria-label="What is shown">
    <input
      ref="input"
      v-model="find"
      class="text-box"
      type="search"
      aria-label="Find items by their words"
      placeholder="find by words"
      @keydown.esc="find = ''"
    />
    <ElSelect v-model="kind" size="small" placeholder="every kind" aria-label="Kinds shown">
      <ElOption value="" label="every kind" />
      <ElOption v-for="each in kinds" :key="each" :value="each" :label="kindWords(each)[1]" />
      <ElOption v-if="hasOpenings" value="unit" label="units that open" />
    </ElSelect>
    <ElSelect v-model="unit" size="small" class="unit" placeholder="every unit" aria-label="Units shown">
      <ElOption value="" label="every unit" />
      <ElOption v-for="[lineage, title] in unitsThere" :key="lineage" :value="lineage" :label="title" />
    </ElSelect>
    <ElCheckbox v-model="onlySettle" :disabled="settle === 0 && !onlySettle"
      >only {{ base.words.look }}</ElCheckbox
    >
    <span class="spring" />
    <button v-if="isNarrowed" class="link" type="button" @click="$emit('showAll')">Show all</button>
    <button v-if="chosen > 0" class="link" type="button" @click="$emit('chooseNone')">
      Choose none of the {{ chosen }}
    </button>
    <button v-else-if="shown > 0" class="link" type="button" @click="$emit('chooseShown')">
      Choose all {{ numberText(shown) }}
    </button>
  </div>
</template>

<style scoped>
.tools {
  flex: none;
  display: flex;
  gap: 10px;
  align-items: center;
  padding: 2px 8px 6px;
}
.text-box {
  width: 150px;
  height: 24px;
}
.el-select {
  width: 118px;
}
.el-select.unit {
  width: 160px;
}
.spring {
  flex: 1;
}
@media (max-width: 900px) {
  .tools {
    flex-wrap: wrap;
  }
}
</style>
