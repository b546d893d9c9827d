<script setup lang="ts">
/** A new password: typed once, and shown where one wants to look at it. */
defineProps<{ fault?: string }>()
const password = defineModel<string>({ required: true })
const shows = ref(false)
const describes = useId()
</script>

<template>
  <FormField label="New password" :fault="fault">
    <input
      v-model="password"
      class="text-box"
      :type="shows ? 'text' : 'password'"
      autocomplete="new-password"
      maxlength="1000"
      required
      :aria-describedby="describes"
    />
  </FormField>
  <p :id="describes" class="small soft">
    At least 12 characters. A few words in a row are good; figures and signs are not needed.
  </p>
  <ElCheckbox v-model="shows">Show what I type</ElCheckbox>
</template>

<style scoped>
p {
  margin: 2px 0 0;
}
</style>
