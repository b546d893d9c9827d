<script setup lang="ts">
import type { TemplatesReply } from '~~/shared/api/shares'
import TemplateRow from './TemplateRow.vue'
import { templatesWith, underHeadings, type ShelfOrder } from './template-words'

/** Templates to begin from, the newest first, each drawn as a strip. What is done with one is the slot’s. */
const props = defineProps<{ withRetired?: boolean; withHeadings?: boolean }>()
const { data, problem, refresh } = useLoaded(() => api.get<TemplatesReply>('/templates'))
onMounted(refresh)
defineExpose({ refresh })
const text = ref('')
const found = computed(() => templatesWith(data.value?.templates ?? [], text.value))
const offered = computed(() => found.value.filter(template => !template.retired))
const order = ref<ShelfOrder>('subject')
const headings = computed(() =>
  props.withHeadings ? underHeadings(offered.value, order.value) : [{ title: '', templates: offered.value }],
)
const retired = computed(() => found.value.filter(template => template.retired))
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
      <span v-if="withHeadings && offered.length > 1" class="order">
        Ordered by
        <ElRadioGroup v-model="order" size="small" aria-label="Ordered by">
          <ElRadio value="subject">subject</ElRadio>
          <ElRadio value="year">year</ElRadio>
        </ElRadioGroup>
      </span>
      <section v-for="heading in headings" :key="heading.title" :aria-label="heading.title || undefined">
        <h2 v-if="heading.title" class="heading">{{ heading.title }}</h2>
        <TemplateRow
          v-for="template in heading.templates"
          :key="template.course.id"
          :template="template"
          strip
        >
          <slot :template="template" />
          <template #below><slot name="below" :template="template" /></template>
        </TemplateRow>
      </section>
      <p v-if="!offered.length && !(withRetired && retired.length)" class="soft none">
        {{ text ? `No template has the words “${text}”.` : 'No template is offered now.' }}
      </p>
      <template v-if="withRetired && retired.length">
        <h2>Retired <span class="soft small">no longer offered; courses rolled from them stay</span></h2>
        <TemplateRow v-for="template in retired" :key="template.course.id" :template="template">
          <slot :template="template" />
          <template #below><slot name="below" :template="template" /></template>
        </TemplateRow>
      </template>
    </template>
    <div v-else class="note">
      <h2>Nothing is on the shelf for you yet</h2>
      <p class="small">
        Open a course and choose “Keep it on the shelf”: the whole course, or one unit. Coordinators offer
        theirs to a department.
      </p>
    </div>
  </div>
</template>

<style scoped>
.find {
  max-width: 380px;
  margin-bottom: 10px;
}
h2 {
  margin: 22px 0 8px;
}
.heading {
  margin: 16px 0 2px;
}
.order {
  display: inline-flex;
  gap: 10px;
  align-items: center;
  margin-left: 18px;
}
h2 .small {
  font: 400 12.5px var(--sans);
  margin-left: 8px;
}
p {
  margin: 0;
}
.none {
  padding-top: 10px;
}
</style>
