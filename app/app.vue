<script setup lang="ts">
import { ElConfigProvider } from 'element-plus'

useTheme()
</script>

<template>
  <ElConfigProvider size="small">
    <NuxtLayout><NuxtPage /></NuxtLayout>
  </ElConfigProvider>
</template>
