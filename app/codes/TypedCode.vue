<script setup lang="ts">
import { areOneCourse, type CodePattern } from '~~/core/pairing/codes'
import type { CodesReply } from '~~/shared/api/codes'
import CodeRead from './CodeRead.vue'
import { tryCode } from './reading'

/** Tries the rules, as they are being written, on any code: also one of a term that has no shells yet. */
const props = defineProps<{
  patterns: readonly CodePattern[]
  mapped: readonly { from: string; to: string }[]
  terms: CodesReply['terms']
  courses: CodesReply['codes']
}>()
const code = ref('')
const typed = computed(() => code.value.trim())
const termName = ref(props.terms[0]?.name ?? '')
const term = computed(() => props.terms.find(({ name }) => name === termName.value) ?? null)
const tried = computed(() =>
  typed.value && term.value ? tryCode(typed.value, term.value, props.patterns) : null,
)
/** One's courses of other terms that a shell of this code would be rolled from. */
const sources = computed(() => {
  const { patterns, mapped } = props
  return props.courses.filter(
    course =>
      course.term.name !== termName.value && areOneCourse(course.code, typed.value, { patterns, mapped }),
  )
})
</script>

<template>
  <section>
    <h2>Any code <span class="soft small">also of a term without shells</span></h2>
    <div class="ask">
      <label>Code<ElInput v-model="code" placeholder="as 2027S-HYD240-01" maxlength="60" /></label>
      <label
        >Term<ElSelect v-model="termName" aria-label="Term of the code"
          ><ElOption v-for="each in terms" :key="each.name" :value="each.name" :label="each.name" /></ElSelect
      ></label>
    </div>
    <div v-if="tried" role="status">
      <p><CodeRead :tried="tried" :has-patterns="patterns.length > 0" /></p>
      <p v-if="sources.length">
        A shell of this code would be filled from
        <template v-for="(source, at) in sources" :key="`${source.code} ${source.term.name}`"
          >{{ at ? ', ' : '' }}{{ source.code }} {{ source.title }}, {{ source.term.name }}</template
        >.
      </p>
      <p v-else class="soft">
        None of your courses of other terms has this code, in an old form or a new one.
      </p>
    </div>
    <p v-else class="soft">Type a code to see how it is read and which of your courses it stands for.</p>
  </section>
</template>

<style scoped>
.ask {
  display: grid;
  grid-template-columns: minmax(0, 240px) minmax(0, 190px);
  gap: 14px;
}
label {
  display: grid;
  gap: 3px;
  font-size: 12.5px;
  color: var(--ink-soft);
}
p {
  margin: 8px 0 0;
}
h2 .small {
  font: 400 12.5px var(--sans);
  margin-left: 8px;
}
</style>
