<script setup lang="ts">
import { refDebounced } from '@vueuse/core'
import { itemKinds, type ItemKind } from '~~/core/course/model'
import type { CourseLine } from '~~/shared/api/courses'
import type { Find, SearchReply } from '~~/shared/api/search'
import FootBar from '../../FootBar.vue'
import StageFrame from '../../StageFrame.vue'
import { useStagePlan } from '../../plan/store'
import CarryPages from '../CarryPages.vue'
import FindAside from './FindAside.vue'

/** Items by their words, in every course one may roll from. */
const { store, plan } = useStagePlan()
const route = useRoute()
const router = useRouter()
const text = ref(typeof route.query.q === 'string' ? route.query.q : '')
const kind = ref<ItemKind | 'any'>('any')
const term = ref('any')
const course = ref('any')
const asked = refDebounced(text, 250)
/** The courses in which anything was found so far: what one narrows to. */
const seen = reactive(new Map<string, CourseLine>())
const courses = computed(() => [...seen.values()])
const terms = computed(() => [...new Map(courses.value.map(each => [each.term.code, each.term.name]))])
const { data, problem, loading, refresh } = useLoaded(async () => {
  if (asked.value.trim() === '') return null
  const wanted = new URLSearchParams({ q: asked.value.trim() })
  if (kind.value !== 'any') wanted.set('kind', kind.value)
  if (term.value !== 'any') wanted.set('term', term.value)
  if (course.value !== 'any') wanted.set('course', course.value)
  const reply = await api.get<SearchReply>(`/search?${wanted.toString()}`)
  for (const place of reply.finds.flatMap(find => find.places)) seen.set(place.course.id, place.course)
  return reply
})
watch([asked, kind, term, course], () => void refresh(), { immediate: true })
watch(asked, value => void router.replace({ query: { ...route.query, q: value || undefined } }))
const finds = computed(() => data.value?.finds ?? [])
const at = ref(0)
watch(data, () => {
  at.value = 0
})
const current = computed((): Find | undefined => finds.value[at.value])
const list = ref<HTMLElement>()
function go(step: number): void {
  at.value = Math.max(0, Math.min(finds.value.length - 1, at.value + step))
  void nextTick(() => list.value?.children[at.value]?.scrollIntoView({ block: 'nearest' }))
}
const box = ref<{ focus: () => void }>()
onMounted(() => box.value?.focus())
useKeys([
  { key: 'j', does: 'next find', run: () => go(1) },
  { key: 'k', does: 'find before', run: () => go(-1) },
  { key: 'ArrowDown', does: 'next find', hidden: true, run: () => go(1) },
  { key: 'ArrowUp', does: 'find before', hidden: true, run: () => go(-1) },
  { key: 'f', does: 'find by words', run: () => box.value?.focus() },
])
const taken = computed(() => Object.keys(store.document?.added.found ?? {}).length)
const totals = computed(() => [
  { count: finds.value.length, words: 'found' },
  { count: taken.value, words: 'taken into this plan' },
])
const placeText = ({ places, more }: Find): string => {
  const names = places.map(({ course }) => `${codeText(course)}, ${course.term.name}`)
  return `${names.join(' · ')}${more ? ` · and ${more} more` : ''}`
}
</script>

<template>
  <StageFrame flush>
    <CarryPages />
    <div class="head">
      <ElInput
        ref="box"
        v-model="text"
        class="words"
        placeholder="words of a page, a question or an attached file"
        clearable
        maxlength="200"
        aria-label="Find items in all courses by their words"
      />
      <ElSelect v-model="kind" size="small" class="kind" aria-label="Of which kind">
        <ElOption value="any" label="of any kind" />
        <ElOption v-for="each in itemKinds" :key="each" :value="each" :label="kindWords(each)[1]" />
      </ElSelect>
      <template v-if="courses.length > 1 || course !== 'any' || term !== 'any'">
        <ElSelect v-model="course" size="small" class="kind" filterable aria-label="In which course">
          <ElOption value="any" label="in any course" />
          <ElOption
            v-for="each in courses"
            :key="each.id"
            :value="each.id"
            :label="`${codeText(each)}, ${each.term.name}`"
          />
        </ElSelect>
        <ElSelect v-model="term" size="small" class="kind" aria-label="In which term">
          <ElOption value="any" label="in any term" />
          <ElOption v-for="[code, name] in terms" :key="code" :value="code" :label="name" />
        </ElSelect>
      </template>
      <span v-if="loading" class="soft small" role="status">Searching …</span>
    </div>
    <ProblemNote v-if="problem" :problem="problem" @retry="refresh" />
    <p v-else-if="!data" class="empty soft">
      Northtide searches every course, template and shared course that you may roll from: titles, pages,
      questions and attached files.
    </p>
    <p v-else-if="data.isTooShort" class="empty soft">Type a word of at least three letters.</p>
    <p v-else-if="!finds.length" class="empty soft">
      Nothing that you may roll from has the words “{{ asked }}”. Try fewer words, or the beginning of one.
    </p>
    <ol v-else ref="list" class="finds" aria-label="Found">
      <li v-for="(find, index) in finds" :key="index" :class="{ cursor: index === at }">
        <button type="button" :aria-current="index === at" @click="at = index">
          <span class="title"
            ><KindMark :kind="find.kind" /> <bdi>{{ find.title }}</bdi></span
          >
          <span class="snippet">
            <template v-for="(part, part_) in find.snippet" :key="part_"
              ><mark v-if="part.isWord">{{ part.text }}</mark
              ><template v-else>{{ part.text }}</template></template
            >
          </span>
          <span class="soft small">{{ placeText(find) }}</span>
        </button>
      </li>
      <li v-if="data.isMore" class="soft small more">More was found. Add a word to narrow the search.</li>
    </ol>
    <template #side>
      <FindAside v-if="current" :key="current.places[0]?.lineage" :find="current" />
      <p v-else class="soft small">What you find is shown here, and can be taken into the plan.</p>
    </template>
    <template #foot>
      <FootBar :totals="totals">
        <template #keys
          ><span><kbd>j</kbd> <kbd>k</kbd> finds</span><span><kbd>f</kbd> words</span></template
        >
        <NuxtLink class="act on-deep" :to="`/plans/${plan.id}/carry`">Back to the ledger ⟶</NuxtLink>
      </FootBar>
    </template>
  </StageFrame>
</template>

<style scoped>
.head {
  display: flex;
  gap: 12px;
  align-items: center;
  margin-bottom: 10px;
  flex-wrap: wrap;
}
.words {
  flex: 1 1 280px;
  max-width: 520px;
}
.kind {
  width: 150px;
}
.finds {
  list-style: none;
  flex: 1;
  min-height: 0;
  overflow: auto;
  border-top: 1.5px solid var(--rule-strong);
}
.finds li {
  border-bottom: 1px solid var(--rule);
}
.finds li.cursor {
  background: var(--tide-wash);
}
.finds button {
  display: grid;
  gap: 2px;
  width: 100%;
  text-align: left;
  background: none;
  border: 0;
  padding: 7px 8px;
  color: inherit;
  font: inherit;
  cursor: pointer;
}
.title {
  font: 600 16px/1.25 var(--serif);
}
.snippet {
  overflow-wrap: anywhere;
}
mark {
  background: none;
  color: inherit;
  font-weight: 650;
  border-bottom: 2px solid var(--tide);
}
.more,
.empty {
  padding: 12px 8px;
}
@media (max-width: 900px) {
  .finds {
    overflow: visible;
  }
}
</style>
