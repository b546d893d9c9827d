<script setup lang="ts">
import type { UploadReply } from '~~/shared/api/uploads'
import { kindInPackage, partWord } from './words'

/** The parts of a course package, in their order. */
defineProps<{ lines: NonNullable<UploadReply['report']>['outline']; left: number }>()
</script>

<template>
  <section>
    <h2>What is in it</h2>
    <p v-if="!lines.length" class="soft">The package holds no unit and no item.</p>
    <ul v-else class="parts" aria-label="What is in it">
      <li
        v-for="(line, at) in lines"
        :key="at"
        :class="line.kind"
        :style="{ paddingLeft: `${18 * line.depth}px` }"
      >
        <b v-if="line.kind === 'unit' || line.kind === 'heading'"
          ><bdi>{{ line.title }}</bdi></b
        >
        <template v-else
          ><KindMark :kind="kindInPackage(line.kind)" /><span
            ><bdi>{{ line.title }}</bdi></span
          ><span class="soft small">{{ partWord(line.kind) }}</span></template
        >
      </li>
    </ul>
    <p v-if="left" class="soft">and {{ numberText(left) }} more, read and not listed here.</p>
  </section>
</template>

<style scoped>
.parts {
  list-style: none;
}
.parts li {
  border-bottom: 1px solid var(--rule);
  padding: 4px 0;
  overflow-wrap: anywhere;
  display: flex;
  gap: 8px;
  align-items: center;
}
.parts li > span.soft {
  margin-left: auto;
  padding-left: 14px;
  white-space: nowrap;
}
.parts li.unit b {
  font: 600 16px var(--serif);
}
.parts li.unit {
  padding-top: 12px;
}
</style>
