<script setup lang="ts">
import { lastPlace } from '~/stages/last-place'

definePageMeta({ redirect: to => lastPlace(String(to.params.id)) })
</script>

<template><div /></template>
