<script setup lang="ts">
import ShelfVersions from '~/shells/ShelfVersions.vue'
import TemplateCare from '~/shells/TemplateCare.vue'
import TemplateList from '~/shells/TemplateList.vue'

useHead({ title: 'Shelf · Northtide' })
const list = ref<InstanceType<typeof TemplateList>>()
</script>

<template>
  <main class="page">
    <header>
      <h1>Shelf</h1>
      <p class="soft">
        Courses and units without students, kept to bring in any term: your own, and those a department
        offers. To keep something here, open a course.
      </p>
    </header>
    <TemplateList ref="list" with-retired with-headings>
      <template #default="{ template }">
        <span class="small ways">
          <NuxtLink v-if="!template.retired" :to="`/no-shell?way=term&from=${template.course.id}`"
            >Plan from it for a term</NuxtLink
          >
          <NuxtLink v-if="template.own" :to="`/courses/${template.course.id}`">Offer it to others</NuxtLink>
        </span>
      </template>
      <template #below="{ template }">
        <ShelfVersions :template="template" @changed="list?.refresh()" />
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
