<script setup lang="ts">
import type { HabitLine } from '~~/shared/api/habits'

/** What a habit would decide, and what it cannot know. `leavesOut`: lines about single things of another course (`from`). */
defineProps<{ habit: Pick<HabitLine, 'decides' | 'cannotKnow'>; leavesOut?: number; from?: string }>()
</script>

<template>
  <div class="told small">
    <h4>It decides</h4>
    <ul>
      <li v-for="line in habit.decides" :key="line">{{ line }}</li>
    </ul>
    <p v-if="leavesOut" class="soft">
      What it says of single things of {{ from }} is left out here: this is another course.
    </p>
    <details>
      <summary>What it cannot know: {{ counted(habit.cannotKnow.length, 'thing') }}</summary>
      <ul class="soft">
        <li v-for="line in habit.cannotKnow" :key="line">{{ line }}</li>
      </ul>
    </details>
  </div>
</template>

<style scoped>
.told {
  margin: 4px 0 8px;
}
h4 {
  margin: 4px 0 2px;
  font: 600 12.5px var(--sans);
}
ul {
  margin: 0;
  padding-left: 15px;
}
p,
details {
  margin: 4px 0 0;
}
summary {
  cursor: pointer;
}
</style>
