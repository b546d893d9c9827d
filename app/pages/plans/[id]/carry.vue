<script setup lang="ts">
import CarryStage from '~/stages/carry/CarryStage.vue'
</script>

<template><CarryStage /></template>
