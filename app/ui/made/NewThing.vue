<script setup lang="ts">
import { madeKinds } from '~~/core/carry/added'
import type { ItemKind } from '~~/core/course/model'

/** Adds a unit or an item: what it is and what it is called, and whatever else the slot asks. */
defineProps<{
  /** The unit into which an item goes; undefined: outside the units. */
  unit: { readonly title: string } | null | undefined
  disabled?: boolean
}>()
const emit = defineEmits<{ add: [] }>()
const kind = defineModel<ItemKind | 'unit'>('kind', { required: true })
const title = defineModel<string>('title', { required: true })
const tried = ref(false)
watch(title, () => (tried.value = false))
function add(): void {
  tried.value = true
  if (title.value.trim()) emit('add')
}
</script>

<template>
  <h2>Add something new</h2>
  <form @submit.prevent="add">
    <dl class="settings">
      <dt>What</dt>
      <dd>
        <ElSelect v-model="kind" size="small" :disabled="disabled" aria-label="What is added">
          <ElOption value="unit" label="unit" />
          <ElOption v-for="each in madeKinds" :key="each" :value="each" :label="kindWords(each)[0]" />
        </ElSelect>
      </dd>
      <dt>Called</dt>
      <dd>
        <ElInput
          v-model="title"
          size="small"
          :disabled="disabled"
          maxlength="500"
          aria-label="Name of what is added"
        />
        <span v-if="tried && !title.trim()" class="small fault" role="alert">Give it a name first.</span>
      </dd>
    </dl>
    <slot />
    <p class="small">
      <button class="link" type="submit" :disabled="disabled">
        {{ kind === 'unit' ? 'Add the unit' : `Add the ${kindWords(kind)[0]}` }}
      </button>
      <span class="soft">
        <template v-if="kind === 'unit'"> below the other units</template>
        <template v-else-if="unit"> to “{{ unit.title }}”</template>
        <template v-else> outside the units</template>
      </span>
    </p>
  </form>
</template>

<style scoped>
form {
  margin-bottom: 14px;
}
</style>
