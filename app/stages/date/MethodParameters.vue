<script setup lang="ts">
import type { Term } from '~~/core/calendar/term'
import type { ParameterAsk } from '~~/core/dates/method'
import { methodOf, ruleBy, type Rule } from '~~/core/dates/rule'

/** What a person decides of a method's own parameters, as its definition asks. */
const props = defineProps<{ rule: Rule; mayEdit: boolean; terms: { source: Term; target: Term } | null }>()
const emit = defineEmits<{ change: [rule: Rule] }>()
const asks = computed(() => methodOf(props.rule).asks ?? [])
const values = computed(() => props.rule as Readonly<Record<string, unknown>>)
const put = (name: string, value: unknown): void =>
  emit('change', ruleBy(props.rule.method, { ...props.rule, [name]: value }))
function putNumber(name: string, event: Event): void {
  const text = event.target instanceof HTMLInputElement ? event.target.value.trim() : ''
  put(name, /^-?\d{1,4}$/.test(text) ? Number(text) : null)
}
/** Milestones that both terms have; the one of the rule stays among them. */
const milestones = computed(() => {
  const { source, target } = props.terms ?? {}
  const shared = [...(source?.milestones ?? [])].filter(([key]) => target?.milestones.has(key))
  return shared.map(([value, { name }]) => ({ value, label: name }))
})
const none = 'none'
const optionsOf = (ask: ParameterAsk): { value: string; label: string }[] => {
  if (ask.as === 'milestone') return milestones.value
  if (ask.as !== 'choice') return []
  const own = Object.entries(ask.options).map(([value, label]) => ({ value, label }))
  return ask.none === undefined ? own : [{ value: none, label: ask.none }, ...own]
}
const chosen = (name: string): string => String(values.value[name] ?? none)
const putChosen = (name: string, value: string): void => put(name, value === none ? null : value)
const isIdle = (ask: ParameterAsk): boolean =>
  ask.as === 'check' && ask.unless !== undefined && (values.value[ask.unless] ?? null) !== null
</script>

<template>
  <div v-if="asks.length" class="more small">
    <template v-for="ask in asks" :key="ask.name">
      <ElCheckbox
        v-if="ask.as === 'check'"
        :model-value="values[ask.name] === true"
        :disabled="!mayEdit || isIdle(ask)"
        @change="value => put(ask.name, value === true)"
        >{{ ask.words }}</ElCheckbox
      >
      <label v-else-if="ask.as === 'number'">
        {{ ask.words }}
        <input
          class="number"
          type="number"
          :value="values[ask.name] ?? ''"
          :disabled="!mayEdit"
          @change="event => putNumber(ask.name, event)"
        />
      </label>
      <label v-else class="choice">
        {{ ask.words }}
        <ElSelect
          :model-value="chosen(ask.name)"
          :disabled="!mayEdit"
          :aria-label="ask.words"
          @change="(value: string) => putChosen(ask.name, value)"
          ><ElOption v-for="option in optionsOf(ask)" :key="option.value" v-bind="option"
        /></ElSelect>
      </label>
    </template>
  </div>
</template>

<style scoped>
.more {
  margin: 4px 0 4px 23px;
  display: flex;
  flex-wrap: wrap;
  gap: 4px 16px;
  align-items: center;
}
.choice {
  display: flex;
  gap: 8px;
  align-items: center;
  width: 100%;
  white-space: nowrap;
}
</style>
