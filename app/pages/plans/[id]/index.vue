<script setup lang="ts">
definePageMeta({ redirect: to => `/plans/${String(to.params.id)}/pair` })
</script>

<template><div /></template>
