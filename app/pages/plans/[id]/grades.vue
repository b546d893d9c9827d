<script setup lang="ts">
import GradesPage from '~/stages/grades/GradesPage.vue'
</script>

<template><GradesPage /></template>
