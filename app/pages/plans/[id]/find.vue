<script setup lang="ts">
import FindPage from '~/stages/carry/find/FindPage.vue'
</script>

<template><FindPage /></template>
