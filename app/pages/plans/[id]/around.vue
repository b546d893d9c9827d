<script setup lang="ts">
import AroundPage from '~/stages/carry/around/AroundPage.vue'
</script>

<template><AroundPage /></template>
