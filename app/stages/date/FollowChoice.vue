<script setup lang="ts">
import { followings, type Following } from '~~/core/dates/hand/moves'
import { followingWords } from './hand'

/** Whether others go along where something is moved by hand. */
defineProps<{ label: string }>()
const following = defineModel<Following>({ required: true })
const id = useId()
</script>

<template>
  <p class="follow small">
    <label :for="id">{{ label }}</label>
    <ElSelect :id="id" v-model="following" size="small" :aria-label="`${label} alone or with others`">
      <ElOption v-for="each in followings" :key="each" :value="each" :label="followingWords[each]" />
    </ElSelect>
  </p>
  <p v-if="following !== 'nobody'" class="small soft">Dates held by hand move along too.</p>
</template>

<style scoped>
.follow {
  display: flex;
  gap: 8px;
  align-items: center;
  margin: 6px 0;
  white-space: nowrap;
}
</style>
