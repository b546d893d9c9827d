<script setup lang="ts">
import { dateFields, type DateField } from '~~/core/course/dates'
import { offeredMethods, ruleToBegin } from '~~/core/dates/fit'
import { ruleAt, wholeCourse, widerRule, withRuleAt, type RuleScope } from '~~/core/dates/levels'
import {
  commonOf,
  methodOf,
  type AnyMethod,
  type ClosurePolicy,
  type MethodName,
  type Rule,
  type RuleSet,
  type TimePolicy,
} from '~~/core/dates/rule'
import { useStagePlan } from '../plan/store'
import { isUnit, type LedgerItem } from './ledger'
import MethodChoice from './MethodChoice.vue'
import MethodParameters from './MethodParameters.vue'
import RulePolicies from './RulePolicies.vue'
import { useAfterLedger } from './after-ledger'
import { ownRules, scopeChoices, scopeValue } from './scopes'

/**
 * How dates cross, for the whole course, a kind, a unit, the selected item or the chosen ones: the method, with what each would move and leave
 * to settle, and what goes with it.
 */
const props = defineProps<{
  item: LedgerItem | null
  items: readonly LedgerItem[]
  /** Rows that are chosen for a change of many. */
  chosen: readonly LedgerItem[]
}>()
const withUndated = defineModel<boolean>('withUndated', { required: true })
const { store, plan, document } = useStagePlan()
const mayEdit = computed(() => plan.value.may.edit)
/** The rules as they are shown: the dates that follow from a change are read first, so what is chosen is shown a moment after them. */
const rules = useAfterLedger(() => document.value.dates)
const scope = computed({
  get: () => store.ruleScope,
  set: (next: RuleScope) => {
    store.ruleScope = next
  },
})
const nodes = computed(() => store.nodes)
const chosenKeys = computed(() => props.chosen.map(each => each.lineage))
const scopes = computed(() => scopeChoices(nodes.value, props.item?.node ?? null, chosenKeys.value))
const chosenScope = computed(() => scopeValue(scope.value))
function chooseScope(value: string): void {
  scope.value = scopes.value.find(each => each.value === value)?.scope ?? wholeCourse
}
// A rule for items is that of the selected or of the chosen ones: where those are others, the course's is before one again.
watch(scopes, all => {
  if (scope.value.level !== 'items') return
  const isMany = scope.value.keys.length > 1
  if (all.some(each => each.value === chosenScope.value)) return
  scope.value =
    isMany && chosenKeys.value.length > 1 ? { level: 'items', keys: chosenKeys.value } : wholeCourse
})
onUnmounted(() => {
  scope.value = wholeCourse
  store.over = null
})
const isCourse = computed(() => scope.value.level === 'course')
const placed = computed(() =>
  props.items.map(item => {
    const { lineage, node } = item
    return { id: lineage, unit: isUnit(item) ? lineage : node.unit, kind: node.kind ?? '' }
  }),
)
/** The rule of what is chosen (`own`: null where it has none of its own), and the one that decides. Dates held by hand are no rule to be chosen. */
function ruleIn(all: RuleSet): { own: Rule | null; rule: Rule } {
  const found = ruleAt(all, scope.value)
  const own = found && !methodOf(found).byHand ? found : null
  return { own, rule: own ?? widerRule(all, scope.value, placed.value) }
}
const seen = computed(() => ruleIn(rules.value))
const own = computed(() => seen.value.own)
const rule = computed(() => seen.value.rule)
/** As it stands by now, which a change is made to. */
const standing = computed(() => ruleIn(document.value.dates))
const putAt = (of: RuleScope, next: Rule | null): void =>
  store.changeIn('dates', withRuleAt(document.value.dates, of, next))
const put = (next: Rule | null): void => putAt(scope.value, next)

/** Methods that these terms give something to go by. Those seldom wanted stand below, unless one is chosen or suggested. */
const methods = computed(() => {
  const terms = store.terms
  return terms
    ? offeredMethods.filter(({ name }) => ruleToBegin(name, commonOf(rule.value), terms) !== null)
    : []
})
const usual: readonly MethodName[] = ['keep-week', 'offset', 'none']
const isShown = ({ name }: AnyMethod): boolean =>
  usual.includes(name) || own.value?.method === name || comparison.value?.suggested === name
const comparison = computed(() =>
  store.comparison && scopeValue(store.comparison.scope) === chosenScope.value ? store.comparison : null,
)
const shown = computed(() => methods.value.filter(isShown))
const further = computed(() => methods.value.filter(method => !isShown(method)))
/** How many items land elsewhere by the method that is laid over. */
const elsewhere = computed(() => {
  const over = store.laidOver
  if (!over) return null
  return props.items.filter(({ lineage, planned }) => {
    const other = over.planned.get(lineage)
    return other && dateFields.some(field => other[field] !== planned[field])
  }).length
})
/** What every way is told. */
const toldOfAll = computed(() => ({
  mayEdit: mayEdit.value,
  comparison: comparison.value,
  over: store.over,
  elsewhere: elsewhere.value,
}))
function lay(method: MethodName | null): void {
  store.over = method
}
/** A rule of another method keeps times, weekdays and closures as they are set. */
function choose(method: MethodName): void {
  if (method === standing.value.own?.method || !store.terms) return
  const next = ruleToBegin(method, commonOf(standing.value.rule), store.terms)
  store.over = null
  if (next) put(next)
}
const putCommon = (changed: object): void => put({ ...standing.value.rule, ...changed })
const setTime = (field: DateField, time: TimePolicy): void =>
  putCommon({ times: { ...standing.value.rule.times, [field]: time } })
const setClosure = (field: DateField, policy: ClosurePolicy): void =>
  putCommon({ closures: { ...standing.value.rule.closures, [field]: policy } })
/** What goes with a method that places dates; one that states them, or takes them away, has no use for it. */
const isPlacing = computed(
  () => own.value !== null && 'prepare' in methodOf(rule.value) && !methodOf(rule.value).waits,
)
const others = computed(() => ownRules(rules.value, nodes.value))
</script>

<template>
  <section>
    <h2>How dates cross</h2>
    <p class="for small">
      <label for="rule-for">For</label>
      <ElSelect
        id="rule-for"
        :model-value="chosenScope"
        aria-label="For what the rule is"
        @change="chooseScope"
        ><ElOption v-for="each in scopes" :key="each.value" :value="each.value" :label="each.label"
      /></ElSelect>
    </p>
    <div role="radiogroup" aria-label="How dates cross">
      <div v-if="!isCourse" class="wider">
        <ElRadio :model-value="own === null" :value="true" :disabled="!mayEdit" @change="put(null)"
          >No rule of its own</ElRadio
        >
        <p class="small soft">
          the wider rule decides: {{ methodOf(widerRule(rules, scope, placed)).title.toLowerCase() }}
        </p>
      </div>
      <MethodChoice
        v-for="method in shown"
        :key="method.name"
        :method="method"
        :is-chosen="own?.method === method.name"
        v-bind="toldOfAll"
        @choose="choose"
        @lay="lay"
      >
        <MethodParameters
          v-if="own?.method === method.name"
          :rule="own"
          :may-edit="mayEdit"
          :terms="store.terms"
          @change="put"
        />
      </MethodChoice>
      <details v-if="further.length">
        <summary class="small">{{ counted(further.length, 'more way', 'more ways') }}</summary>
        <MethodChoice
          v-for="method in further"
          :key="method.name"
          :method="method"
          :is-chosen="own?.method === method.name"
          v-bind="toldOfAll"
          @choose="choose"
          @lay="lay"
        />
      </details>
    </div>
    <RulePolicies
      v-show="isPlacing"
      :rule="rule"
      :nodes="nodes"
      :may-edit="mayEdit"
      @time="setTime"
      @closure="setClosure"
      @weekdays="weekdays => putCommon({ weekdays })"
    />
    <ul v-if="others.length" class="others small" aria-label="Rules of their own">
      <li v-for="each in others" :key="each.value">
        <span class="name">{{ each.label }}</span>: {{ each.method.toLowerCase() }}
        <button v-if="mayEdit" class="link" type="button" @click="putAt(each.scope, null)">
          Remove the rule for {{ each.label }}
        </button>
      </li>
    </ul>
    <ElCheckbox v-model="withUndated" class="undated">Show items without dates</ElCheckbox>
    <slot />
  </section>
</template>

<style scoped>
.for {
  display: flex;
  gap: 10px;
  align-items: center;
  margin: 0 0 6px;
}
.wider p {
  margin: -1px 0 3px 23px;
}
details {
  margin: 2px 0 4px;
}
summary {
  cursor: pointer;
  color: var(--tide-text);
}
.others {
  list-style: none;
  padding: 0;
  margin: 0 0 10px;
}
.others li {
  padding: 3px 0;
  border-bottom: 1px dotted var(--rule-middle);
}
.undated {
  margin-top: 12px;
}
</style>
