<script setup lang="ts">
import DateStage from '~/stages/date/DateStage.vue'
</script>

<template><DateStage /></template>
