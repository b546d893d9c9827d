<script setup lang="ts">
import type { TemplateLine } from '~~/shared/api/shares'
import { arrangementWords } from './template-words'

/** A template in a row: what it is, and its course as a strip. What is done with it is the slot’s. */
const props = defineProps<{ template: TemplateLine; strip?: boolean }>()
const facts = computed(() => {
  const { subject, arrangement, shape, course, own, author, createdAt, offeredTo, version, note } =
    props.template
  const divisions = counted(shape.length, arrangement === 'weeks' ? 'week' : 'unit')
  const isVersion = version > 1 ? `version ${version}${note ? `: ${note}` : ''}` : ''
  const by = `${own ? 'yours' : author}, ${instantText(createdAt).slice(0, -6)}`
  const offer = offeredTo.length ? `offered to ${offeredTo.join(', ')}` : ''
  return [
    subject,
    arrangementWords[arrangement],
    `${divisions}, ${counted(course.items, 'item')}`,
    isVersion,
    by,
    offer,
  ]
    .filter(Boolean)
    .join(' · ')
})
</script>

<template>
  <article :aria-label="template.course.title">
    <header>
      <h2>
        <NuxtLink :to="`/courses/${template.course.id}`"
          ><bdi>{{ template.course.title }}</bdi></NuxtLink
        >
      </h2>
      <p class="soft small">{{ facts }}</p>
      <span class="spring" />
      <slot />
    </header>
    <template v-if="strip">
      <CourseStrip :shape="template.shape" :arrangement="template.arrangement" />
      <p v-if="template.about" class="small about">{{ template.about }}</p>
    </template>
    <slot name="below" />
  </article>
</template>

<style scoped>
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
h2 {
  font-size: 16px;
}
h2 a {
  color: var(--ink);
  text-decoration: none;
}
h2 a:hover {
  text-decoration: underline;
}
p {
  margin: 0;
}
.about {
  margin-top: 6px;
  max-width: 80ch;
}
</style>
