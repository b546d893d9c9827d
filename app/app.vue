<script setup lang="ts">
import { ElConfigProvider } from 'element-plus'
</script>

<template>
  <ElConfigProvider size="small">
    <NuxtLayout><NuxtPage /></NuxtLayout>
  </ElConfigProvider>
</template>
