<script setup lang="ts">
import TemplateCare from '~/shells/TemplateCare.vue'
import TemplateList from '~/shells/TemplateList.vue'

useHead({ title: 'Templates · Northtide' })
const list = ref<InstanceType<typeof TemplateList>>()
</script>

<template>
  <main class="page">
    <header>
      <h1>Templates</h1>
      <p class="soft">
        Courses without students to begin a new one from: your own, and those a department offers. To make
        one, open a course.
      </p>
    </header>
    <TemplateList ref="list" with-retired>
      <template #default="{ template }">
        <span class="small ways">
          <NuxtLink v-if="!template.retired" :to="`/no-shell?way=term&from=${template.course.id}`"
            >Plan from it for a term</NuxtLink
          >
          <NuxtLink v-if="template.own" :to="`/courses/${template.course.id}`">Offer it to others</NuxtLink>
        </span>
      </template>
      <template #below="{ template }">
        <TemplateCare v-if="template.mayChange" :template="template" @changed="list?.refresh()" />
      </template>
    </TemplateList>
  </main>
</template>

<style scoped>
.ways {
  display: flex;
  gap: 14px;
}
</style>
