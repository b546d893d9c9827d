<script setup lang="ts">
import WorthPage from '~/stages/carry/worth/WorthPage.vue'
</script>

<template><WorthPage /></template>
