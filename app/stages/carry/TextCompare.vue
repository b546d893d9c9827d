<script setup lang="ts">
import { diffWordsWithSpace } from 'diff'
import type { ItemReply } from '~~/shared/api/courses'

/** The texts of two things side by side, with what differs marked on either side. */
const props = defineProps<{
  old: { course: string; lineage: string }
  now: { course: string; lineage: string }
}>()
const longest = 20_000
/** What there is to read of an item, as plain text. */
function textOf({ html, questions, file, url }: ItemReply): string {
  const asText = (piece: string): string => {
    const parsed = new DOMParser().parseFromString(piece.replace(/<\/(p|li|h\d|tr)>/g, '$&\n'), 'text/html')
    return (parsed.body.textContent ?? '')
      .replace(/[ \t]+/g, ' ')
      .replace(/\n\s*\n+/g, '\n')
      .trim()
  }
  if (html !== null) return asText(html)
  if (questions) return questions.map((question, at) => `${at + 1}. ${asText(question.prompt)}`).join('\n')
  return file ? `A file of ${sizeText(file.size)}` : (url ?? '')
}
const path = ({ course, lineage }: { course: string; lineage: string }): string =>
  `/courses/${course}/items/${lineage}`
const { data, problem, loading, refresh } = useLoaded(async () => {
  const [old, now] = await Promise.all([
    api.get<ItemReply>(path(props.old)),
    api.get<ItemReply>(path(props.now)),
  ])
  return { old: textOf(old).slice(0, longest), now: textOf(now).slice(0, longest) }
})
watch([() => props.old.lineage, () => props.now.lineage], refresh, { immediate: true })
const pieces = computed(() => (data.value ? diffWordsWithSpace(data.value.now, data.value.old) : []))
const isSame = computed(() => data.value !== null && data.value.old === data.value.now)
</script>

<template>
  <ProblemNote v-if="problem" :problem="problem" @retry="refresh" />
  <LoadingLines v-else-if="loading && !data" what="Fetching both texts …" />
  <p v-else-if="isSame" class="small soft">
    {{ data?.old ? 'Both texts are the same.' : 'Neither has a text.' }}
  </p>
  <div v-else-if="data" class="compare">
    <div>
      <h4 class="caps">Old course</h4>
      <p class="text">
        <template v-for="(piece, at) in pieces" :key="at">
          <ins v-if="piece.added">{{ piece.value }}</ins>
          <template v-else-if="!piece.removed">{{ piece.value }}</template>
        </template>
      </p>
    </div>
    <div>
      <h4 class="caps">Shell now</h4>
      <p class="text">
        <template v-for="(piece, at) in pieces" :key="at">
          <del v-if="piece.removed">{{ piece.value }}</del>
          <template v-else-if="!piece.added">{{ piece.value }}</template>
        </template>
      </p>
    </div>
  </div>
</template>

<style scoped>
.compare {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 12px;
  max-height: 260px;
  overflow: auto;
  border-block: 1px solid var(--rule);
  padding: 6px 0;
  margin-bottom: 10px;
}
h4 {
  margin: 0 0 4px;
}
.text {
  white-space: pre-line;
  overflow-wrap: anywhere;
  font-size: 12.5px;
  margin: 0;
}
ins {
  background: var(--tide-wash);
  text-decoration: none;
}
del {
  background: var(--buoy-wash);
  text-decoration: none;
}
</style>
