<script setup lang="ts">
import RunStage from '~/stages/run/RunStage.vue'
</script>

<template><RunStage /></template>
