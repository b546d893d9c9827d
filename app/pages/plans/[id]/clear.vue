<script setup lang="ts">
import ClearStage from '~/stages/clear/ClearStage.vue'
</script>

<template><ClearStage /></template>
