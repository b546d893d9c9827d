<script setup lang="ts">
import SettingsPage from '~/stages/carry/settings/SettingsPage.vue'
</script>

<template><SettingsPage /></template>
