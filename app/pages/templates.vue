<script setup lang="ts">
import TemplateGallery from '~/shells/TemplateGallery.vue'

useHead({ title: 'Templates · Northtide' })
</script>

<template>
  <main class="page">
    <header>
      <h1>Templates</h1>
      <p class="soft">
        Courses without students, kept to begin from: yours, and those that a department offers. Choose one
        for a shell on its page of ways in, or make one from a course on the course’s page.
      </p>
    </header>
    <TemplateGallery
      ><template #default="{ template }"
        ><p class="small">
          <NuxtLink :to="`/no-shell?way=term&from=${template.course.id}`"
            >Plan from it against a term</NuxtLink
          >
          ·
          <NuxtLink :to="`/courses/${template.course.id}`">{{
            template.own ? 'look, or offer it' : 'look'
          }}</NuxtLink>
        </p></template
      ></TemplateGallery
    >
  </main>
</template>
