<script setup lang="ts">
import type { TemplateLine, TemplatesReply } from '~~/shared/api/shares'

/** Templates to choose from: by picture, arrangement, subject, author, newest first. What is done with one is the slot’s. */
const { data, problem, refresh } = useLoaded(() => api.get<TemplatesReply>('/templates'))
onMounted(refresh)
defineExpose({ refresh })
const any = 'any'
const arrangement = ref<'any' | 'weeks' | 'units'>(any)
const subject = ref(any)
const author = ref(any)
const order = ref<'newest' | 'title'>('newest')
const unique = (of: (template: TemplateLine) => string): string[] =>
  [...new Set(data.value?.templates.map(of) ?? [])].sort()
const shown = computed(() => {
  const found = (data.value?.templates ?? []).filter(
    template =>
      (arrangement.value === any || template.arrangement === arrangement.value) &&
      (subject.value === any || template.subject === subject.value) &&
      (author.value === any || template.author === author.value),
  )
  return order.value === 'title'
    ? [...found].sort((a, b) => a.course.title.localeCompare(b.course.title))
    : found
})
</script>

<template>
  <div>
    <ProblemNote v-if="problem" :problem="problem" @retry="refresh" />
    <LoadingLines v-else-if="!data" what="Fetching the templates …" :rows="4" />
    <template v-else-if="data.templates.length">
      <div class="by">
        <ElSelect v-model="arrangement" aria-label="Arrangement"
          ><ElOption :value="any" label="any arrangement" /><ElOption
            value="weeks"
            label="by week" /><ElOption value="units" label="by unit"
        /></ElSelect>
        <ElSelect v-model="subject" aria-label="Subject"
          ><ElOption :value="any" label="any subject" /><ElOption
            v-for="one in unique(template => template.subject)"
            :key="one"
            :value="one"
            :label="one"
        /></ElSelect>
        <ElSelect v-model="author" aria-label="Author"
          ><ElOption :value="any" label="any author" /><ElOption
            v-for="one in unique(template => template.author)"
            :key="one"
            :value="one"
            :label="one"
        /></ElSelect>
        <ElSelect v-model="order" aria-label="Order"
          ><ElOption value="newest" label="newest first" /><ElOption value="title" label="by title"
        /></ElSelect>
      </div>
      <div class="gallery">
        <article v-for="template in shown" :key="template.course.id" :aria-label="template.course.title">
          <TemplatePicture :shape="template.shape" :arrangement="template.arrangement" />
          <h3>
            <NuxtLink :to="`/courses/${template.course.id}`">{{ template.course.title }}</NuxtLink>
          </h3>
          <p class="soft small">
            {{ template.subject }} · {{ template.arrangement === 'weeks' ? 'by week' : 'by unit' }} ·
            {{ counted(template.shape.length, template.arrangement === 'weeks' ? 'week' : 'unit') }},
            {{ counted(template.course.items, 'item') }}<br />{{ template.own ? 'yours' : template.author }},
            {{ instantText(template.createdAt).slice(0, -6)
            }}{{ template.offeredTo.length ? ` · offered to ${template.offeredTo.join(', ')}` : '' }}
          </p>
          <p v-if="template.about" class="small">{{ template.about }}</p>
          <slot :template="template" />
        </article>
      </div>
      <p v-if="!shown.length" class="soft">No template is of this kind. Choose “any” again.</p>
    </template>
    <div v-else class="note">
      <h3>There is no template for you yet</h3>
      <p class="small">
        Make one from a course: open it and choose “Make a template”. Coordinators offer theirs to a
        department.
      </p>
    </div>
  </div>
</template>

<style scoped>
.by {
  display: flex;
  gap: 12px;
  margin-bottom: 16px;
}
.by .el-select {
  width: 170px;
}
.gallery {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(238px, 1fr));
  gap: 26px;
  align-items: start;
}
h3 {
  margin: 8px 0 2px;
}
h3 a {
  color: var(--ink);
  text-decoration: none;
}
p {
  margin: 0 0 6px;
}
</style>
