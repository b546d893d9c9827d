<script setup lang="ts">
import type { TemplateLine, TemplatesReply } from '~~/shared/api/shares'
import { arrangementWords, templatesWith } from './template-words'

/** Templates to begin from, the newest first, each drawn as a strip. What is done with one is the slot’s. */
defineProps<{ withRetired?: boolean }>()
const { data, problem, refresh } = useLoaded(() => api.get<TemplatesReply>('/templates'))
onMounted(refresh)
defineExpose({ refresh })
const text = ref('')
const found = computed(() => templatesWith(data.value?.templates ?? [], text.value))
const offered = computed(() => found.value.filter(template => !template.retired))
const retired = computed(() => found.value.filter(template => template.retired))
function factsOf({
  subject,
  arrangement,
  shape,
  course,
  own,
  author,
  createdAt,
  offeredTo,
}: TemplateLine): string {
  const divisions = counted(shape.length, arrangement === 'weeks' ? 'week' : 'unit')
  const by = `${own ? 'yours' : author}, ${instantText(createdAt).slice(0, -6)}`
  const offer = offeredTo.length ? `offered to ${offeredTo.join(', ')}` : ''
  return [subject, arrangementWords[arrangement], `${divisions}, ${counted(course.items, 'item')}`, by, offer]
    .filter(Boolean)
    .join(' · ')
}
</script>

<template>
  <div>
    <ProblemNote v-if="problem" :problem="problem" @retry="refresh" />
    <LoadingLines v-else-if="!data" what="Fetching the templates …" :rows="4" />
    <template v-else-if="data.templates.length">
      <ElInput
        v-model="text"
        class="find"
        clearable
        placeholder="name, subject, author, by week or by unit"
        aria-label="Find a template"
      />
      <article v-for="template in offered" :key="template.course.id" :aria-label="template.course.title">
        <header>
          <h2>
            <NuxtLink :to="`/courses/${template.course.id}`"
              ><bdi>{{ template.course.title }}</bdi></NuxtLink
            >
          </h2>
          <p class="soft small">{{ factsOf(template) }}</p>
          <span class="spring" />
          <slot :template="template" />
        </header>
        <CourseStrip :shape="template.shape" :arrangement="template.arrangement" />
        <p v-if="template.about" class="small about">{{ template.about }}</p>
        <slot name="below" :template="template" />
      </article>
      <p v-if="!offered.length && !(withRetired && retired.length)" class="soft none">
        {{ text ? `No template has the words “${text}”.` : 'No template is offered now.' }}
      </p>
      <template v-if="withRetired && retired.length">
        <h2 class="retired">
          Retired <span class="soft small">not offered any more; what was rolled from them stays</span>
        </h2>
        <article v-for="template in retired" :key="template.course.id" :aria-label="template.course.title">
          <header>
            <h2>
              <NuxtLink :to="`/courses/${template.course.id}`"
                ><bdi>{{ template.course.title }}</bdi></NuxtLink
              >
            </h2>
            <p class="soft small">{{ factsOf(template) }}</p>
            <span class="spring" />
            <slot :template="template" />
          </header>
          <slot name="below" :template="template" />
        </article>
      </template>
    </template>
    <div v-else class="note">
      <h2>There is no template for you yet</h2>
      <p class="small">
        Make one from a course: open it and choose “Make a template”. Coordinators offer theirs to a
        department.
      </p>
    </div>
  </div>
</template>

<style scoped>
.find {
  max-width: 380px;
  margin-bottom: 10px;
}
article {
  border-top: 1px solid var(--rule);
  padding: 10px 0 12px;
}
article:first-of-type {
  border-top: 1.5px solid var(--rule-strong);
}
header {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 16px;
  align-items: baseline;
  margin-bottom: 6px;
}
.spring {
  flex: 1;
}
h2 a {
  color: var(--ink);
  text-decoration: none;
}
h2 a:hover {
  text-decoration: underline;
}
h2.retired {
  margin: 22px 0 8px;
}
h2.retired .small {
  font: 400 12.5px var(--sans);
  margin-left: 8px;
}
p {
  margin: 0;
}
.about {
  margin-top: 6px;
  max-width: 80ch;
}
.none {
  padding-top: 10px;
}
</style>
