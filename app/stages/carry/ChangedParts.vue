<script setup lang="ts">
import { partWords, type ChangedPart, type ThingPart } from '~~/core/carry/again'
import type { PlaceRow } from '~~/core/carry/places/row'
import type { OutlineNode } from '~~/core/course/outline'
import { useStagePlan } from '../plan/store'
import PassageChoice from './PassageChoice.vue'
import TextCompare from './TextCompare.vue'
import { partText } from './place-words'

/** What of a thing is not as the last run left it, part by part, and of a text passage by passage. */
const props = defineProps<{
  row: PlaceRow
  source: OutlineNode
  shell: OutlineNode
  sourceCourse: string
  mayEdit: boolean
}>()
const { store, plan, document } = useStagePlan()
const places = computed(() => document.value.places)
const key = computed(() => props.source.lineage)
const isItem = computed(() => props.row.type === 'item')
/** A text that was changed can be taken passage by passage, where both are pages. */
const hasPassages = computed(
  () => props.source.isHtml && props.shell.isHtml && props.row.parts.some(({ part }) => part === 'text'),
)
const showsPassages = ref(false)
watch(key, () => (showsPassages.value = Boolean(props.row.text?.passages)), { immediate: true })

function takePart(part: ThingPart, side: 'source' | 'shell'): void {
  const { [key.value]: _, ...others } = places.value.passages
  store.changeIn('places', {
    parts: { ...places.value.parts, [key.value]: { ...places.value.parts[key.value], [part]: side } },
    ...(part === 'text' && { passages: others }),
  })
}
function partSide({ part, takes, settle, passages }: ChangedPart): 'source' | 'shell' | undefined {
  if (passages) return undefined
  const proposed = takes ? 'source' : 'shell'
  return places.value.parts[key.value]?.[part] ?? (settle ? undefined : proposed)
}
</script>

<template>
  <TextCompare
    v-if="isItem && !(hasPassages && showsPassages)"
    :old="{ course: sourceCourse, lineage: source.lineage }"
    :now="{ course: plan.target.course.id, lineage: shell.lineage }"
  />
  <table class="ruled parts">
    <caption class="caps">
      Changed since the last run
    </caption>
    <thead>
      <tr>
        <th scope="col">Part</th>
        <th scope="col">Old course</th>
        <th scope="col">Shell now</th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="each in row.parts" :key="each.part">
        <th scope="row">
          {{ partWords[each.part] }}
          <span v-if="each.passages" class="small">by passages</span>
          <span v-else-if="each.outcome === 'both'" class="settle small">both changed</span>
        </th>
        <td v-for="side in ['source', 'shell'] as const" :key="side">
          <ElRadio
            :model-value="partSide(each)"
            :value="side"
            :disabled="!mayEdit"
            :aria-label="`${partWords[each.part]}: take the ${side === 'source' ? 'old course’s' : 'shell’s'}`"
            @change="takePart(each.part, side)"
            >{{ partText(each.part, side === 'source' ? source : shell, row, side) }}</ElRadio
          >
        </td>
      </tr>
    </tbody>
  </table>
  <p v-if="hasPassages && !showsPassages" class="small">
    <button class="link" type="button" @click="showsPassages = true">Compare the text by passages</button>
  </p>
  <PassageChoice v-if="hasPassages && showsPassages" :lineage="key" :may-edit="mayEdit" />
</template>

<style scoped>
.parts {
  margin-bottom: 10px;
}
.parts caption {
  text-align: left;
}
.parts th[scope='row'] {
  text-transform: none;
  letter-spacing: 0;
  font-size: 12.5px;
  font-weight: 500;
  border-bottom: 1px solid var(--rule);
}
.parts th[scope='row'] span {
  display: block;
}
.parts :deep(.el-radio) {
  height: auto;
  white-space: normal;
  margin: 0;
  align-items: flex-start;
}
.parts :deep(.el-radio__label) {
  overflow-wrap: anywhere;
  font-size: 12.5px;
}
</style>
