<script setup lang="ts">
import type { CourseReply } from '~~/shared/api/courses'

/** What one person calls a course, and whether they pinned or hid it; nobody else sees it. */
type Preferences = CourseReply['preferences']
const props = defineProps<{ id: string; preferences: Preferences }>()
const emit = defineEmits<{ saved: [] }>()
/** The label as it is typed; null while it is not being changed. */
const label = ref<string | null>(null)
const {
  run: save,
  busy,
  problem,
} = useAction(async (preferences: Partial<Preferences>) => {
  await api.put(`/courses/${props.id}/preferences`, preferences)
  label.value = null
  emit('saved')
})
</script>

<template>
  <div class="small own">
    <form v-if="label !== null" @submit.prevent="save({ label })">
      <ElInput v-model="label" maxlength="200" aria-label="Your own label" />
      <button class="link" type="submit" :disabled="busy">Save the label</button>
    </form>
    <template v-else>
      <span v-if="preferences.label" class="soft">You call it “{{ preferences.label }}”.</span>
      <button class="link" type="button" @click="label = preferences.label ?? ''">
        {{ preferences.label ? 'Change the label' : 'Give it a label of your own' }}
      </button>
    </template>
    <button class="link" type="button" :disabled="busy" @click="save({ pinned: !preferences.pinned })">
      {{ preferences.pinned ? 'Unpin' : 'Pin' }}
    </button>
    <button class="link" type="button" :disabled="busy" @click="save({ hidden: !preferences.hidden })">
      {{ preferences.hidden ? 'Put it back on my list' : 'Take it off my list' }}
    </button>
    <ActionProblem :problem="problem" line />
  </div>
</template>

<style scoped>
.own,
.own form {
  display: flex;
  gap: 14px;
  align-items: center;
}
</style>
