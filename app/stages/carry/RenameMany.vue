<script setup lang="ts">
import { useStagePlan } from '../plan/store'
import { countsByKind } from './carry'
import { renamings, type RenamedSort } from './renaming'

/** Many names at once, by a pattern, with what they will be. */
const props = defineProps<{ mayEdit: boolean; selected: ReadonlySet<string> }>()
const { store, document } = useStagePlan()
const sort = ref<RenamedSort>('units')
const pattern = ref('Week {n}: {title}')
const kinds = computed(() => countsByKind(store.rows, store.carried).filter(each => each.carried > 0))
const found = computed(() =>
  pattern.value.trim() === ''
    ? []
    : renamings(store.rows, sort.value, key => props.selected.has(key), pattern.value),
)
const previewed = 3
const words = computed((): readonly [string, string] => {
  if (sort.value === 'units') return ['unit', 'units']
  return sort.value === 'selected' ? ['row', 'rows'] : kindWords(sort.value)
})
const renamed = computed(() => Object.keys(document.value.places.titles).length)
function rename(): void {
  const titles = Object.fromEntries(found.value.map(({ lineage, to }) => [lineage, to]))
  store.changeIn('places', { titles: { ...document.value.places.titles, ...titles } })
}
</script>

<template>
  <h2>Names</h2>
  <dl class="settings">
    <dt>Rename</dt>
    <dd>
      <ElSelect v-model="sort" size="small" :disabled="!mayEdit" aria-label="What is renamed">
        <ElOption value="units" label="all units" />
        <ElOption v-for="{ kind } in kinds" :key="kind" :value="kind" :label="`all ${kindWords(kind)[1]}`" />
        <ElOption value="selected" label="what is selected" />
      </ElSelect>
    </dd>
    <dt>Pattern</dt>
    <dd>
      <ElInput
        v-model="pattern"
        size="small"
        :disabled="!mayEdit"
        maxlength="200"
        aria-label="Pattern of the names"
      />
    </dd>
  </dl>
  <p class="small soft">
    {n} is the number in this order, {title} the title without a number before it.
    <button class="link" type="button" :disabled="!mayEdit" @click="pattern = '{title}'">
      Take numbers off
    </button>
  </p>
  <ul v-if="found.length" class="preview small" aria-label="New names">
    <li v-for="each in found.slice(0, previewed)" :key="each.lineage">
      <bdi class="soft">{{ each.from }}</bdi> becomes <bdi>{{ each.to }}</bdi>
    </li>
    <li v-if="found.length > previewed" class="soft">and {{ found.length - previewed }} more</li>
  </ul>
  <p v-else class="small soft">No name changes by this.</p>
  <p class="small">
    <button v-if="found.length" class="link" type="button" :disabled="!mayEdit" @click="rename">
      Rename {{ counted(found.length, ...words) }}
    </button>
  </p>
  <p v-if="renamed" class="small">
    {{ renamed === 1 ? 'One has' : `${renamed} have` }} another name than in the old course.
    <button class="link" type="button" :disabled="!mayEdit" @click="store.changeIn('places', { titles: {} })">
      Give {{ renamed === 1 ? 'it its own name' : 'all their own names' }} back
    </button>
  </p>
</template>

<style scoped>
.preview {
  list-style: none;
}
.preview li {
  padding: 2px 0;
  overflow-wrap: anywhere;
}
</style>
