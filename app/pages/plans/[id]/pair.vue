<script setup lang="ts">
import PairStage from '~/stages/pair/PairStage.vue'
</script>

<template><PairStage /></template>
