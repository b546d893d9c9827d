<script setup lang="ts">
import { graceText, usualGrace, type Grace } from '~~/core/grading/grace'
import NumberBox from '~/ui/NumberBox.vue'
import { useStagePlan } from '../plan/store'

/** How often students may hand in later without asking: as the old course has it, or otherwise in the new one. */
defineProps<{ mayEdit: boolean }>()
const { store, plan, document } = useStagePlan()
const own = computed(() => document.value.grace)
/** What comes where nobody says otherwise. */
const comes = computed(
  () =>
    [plan.value.source, ...plan.value.more].find(side => side.grace)?.grace ??
    plan.value.target.grace ??
    null,
)
const how = computed(() => {
  if (!own.value) return 'as-was'
  return own.value.count === 0 ? 'none' : 'some'
})
const first = (): Grace => (comes.value && comes.value.count > 0 ? comes.value : usualGrace)
function choose(next: string | number | boolean | undefined): void {
  if (next === 'as-was') store.changePart('grace', null)
  else if (next === 'none') store.changePart('grace', { ...usualGrace, count: 0 })
  else store.changePart('grace', { ...first() })
}
const put = (changed: Partial<Grace>): void =>
  store.changePart('grace', { ...(own.value ?? first()), ...changed })
const asWas = computed(() => (comes.value ? graceText(comes.value) : 'nobody has said'))
const isNone = computed(() => (own.value ?? comes.value)?.count === 0)
</script>

<template>
  <section class="under-rule" aria-label="Grace allowances">
    <h2>Grace allowances</h2>
    <p class="small soft">Each lets a student hand in later once, without asking.</p>
    <ElRadioGroup
      :model-value="how"
      :disabled="!mayEdit"
      aria-label="Grace allowances in the new course"
      @change="choose"
    >
      <ElRadio value="as-was">as before: {{ asWas }}</ElRadio>
      <ElRadio value="none">none</ElRadio>
      <ElRadio value="some">so many:</ElRadio>
    </ElRadioGroup>
    <dl v-if="own && own.count > 0" class="settings">
      <dt>How many</dt>
      <dd>
        <NumberBox
          :value="own.count"
          :min="1"
          :max="200"
          :disabled="!mayEdit"
          label="How many grace allowances each student has"
          @change="count => put({ count })"
        />
        <span class="small soft"> for each student</span>
      </dd>
      <dt>How long</dt>
      <dd>
        <NumberBox
          :value="own.days"
          :min="1"
          :max="60"
          :disabled="!mayEdit"
          label="How many days one grace allowance lasts"
          @change="days => put({ days })"
        />
        <span class="small soft"> {{ own.days === 1 ? 'day' : 'days' }} each</span>
      </dd>
      <dt></dt>
      <dd>
        <ElCheckbox
          :model-value="own.addsUp"
          :disabled="!mayEdit"
          @change="value => put({ addsUp: Boolean(value) })"
          >several may go on one item</ElCheckbox
        >
      </dd>
    </dl>
    <p v-if="isNone" class="small settle">With none, the syllabus must not mention them.</p>
  </section>
</template>

<style scoped>
.el-radio-group {
  margin-top: 6px;
  display: grid;
  justify-items: start;
}
p {
  margin: 4px 0;
}
</style>
