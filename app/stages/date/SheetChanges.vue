<script setup lang="ts">
import { dateFields, type ItemDates } from '~~/core/course/dates'
import type { SheetReply } from '~~/shared/api/plans'
import { fieldName } from '~/composables/words'
import { usePlan } from '../plan/store'
import { useLeftOut } from './left-out'

/** What a sheet that came back would change. It is taken whole or in part, or not at all. */
const props = defineProps<{ reply: SheetReply; file: string }>()
const emit = defineEmits<{ take: [dates: ReadonlyMap<string, ItemDates | null>]; leave: [] }>()
type Change = SheetReply['changes'][number]
const { without, turn, wanted } = useLeftOut(() => props.reply.changes)
const takeText = computed(() => {
  const [some, all] = [wanted.value.length, props.reply.changes.length]
  if (some < all) return `Take ${some} of ${all} changes`
  return all === 1 ? 'Take the change' : `Take all ${all} changes`
})
const take = (): void => emit('take', new Map(wanted.value.map(({ id, is }) => [id, is])))
const store = usePlan()
const years = computed(() => store.terms && yearsOf(store.terms.target))
const told = (at: ItemDates['due']): string => (at ? momentText(at, years.value) : 'no date')
function lines({ was, is }: Change): { key: string; name: string; was: string; is: string }[] {
  if (!is) return [{ key: 'held', name: 'Held', was: 'by hand', is: 'by its rule again' }]
  const changed = dateFields.filter(field => was[field] !== is[field])
  if (changed.length === 0) return [{ key: 'held', name: 'Held', was: 'by its rule', is: 'where it is' }]
  return changed.map(field => ({
    key: field,
    name: fieldName(field),
    was: told(was[field]),
    is: told(is[field]),
  }))
}
const rest = computed(() => {
  const { unchanged, absent } = props.reply
  return [
    `${unchanged === 0 ? 'No' : numberText(unchanged)} ${unchanged === 1 ? 'row says' : 'rows say'} what the plan says.`,
    ...(absent > 0
      ? [
          `${counted(absent, 'item')} of the plan ${absent === 1 ? 'is' : 'are'} not in the sheet and stay as they are.`,
        ]
      : []),
  ].join(' ')
})
const heading = ref<HTMLElement>()
onMounted(() => heading.value?.focus())
</script>

<template>
  <section class="sheet" aria-label="What the sheet changes">
    <header>
      <div>
        <h2 ref="heading" tabindex="-1">
          <bdi>{{ file }}</bdi> changes
          {{ reply.changes.length === 0 ? 'nothing' : counted(reply.changes.length, 'item') }}
        </h2>
        <p class="soft small">{{ rest }}</p>
      </div>
      <div class="acts">
        <button class="act plain" type="button" @click="$emit('leave')">Leave the plan as it is</button>
        <button
          v-if="reply.changes.length"
          class="act"
          type="button"
          :disabled="!wanted.length"
          @click="take"
        >
          {{ takeText }}
        </button>
      </div>
    </header>
    <div class="lists">
      <template v-if="reply.problems.length">
        <h3>{{ counted(reply.problems.length, 'row does', 'rows do') }} not count</h3>
        <ul aria-label="Rows that do not count">
          <li v-for="{ row, title, message } in reply.problems" :key="row" class="problem">
            <span class="soft">row {{ row }}</span> <bdi>{{ title }}</bdi>
            <span class="settle">{{ message }}</span>
          </li>
        </ul>
      </template>
      <ul v-if="reply.changes.length" aria-label="Changes of the sheet">
        <li v-for="change in reply.changes" :key="change.id">
          <label>
            <input
              type="checkbox"
              :checked="!without.has(change.id)"
              :aria-label="`Take the change of ${change.title}`"
              @change="turn(change.id)"
            />
            <bdi>{{ change.title }}</bdi>
          </label>
          <span class="fields">
            <span v-for="line in lines(change)" :key="line.key">
              <span class="soft">{{ line.name }}</span> {{ line.was }} → <b>{{ line.is }}</b>
            </span>
          </span>
          <span class="soft small">row {{ change.row }}</span>
        </li>
      </ul>
    </div>
  </section>
</template>

<style scoped>
.sheet {
  flex: 1;
  min-height: 0;
  display: flex;
  flex-direction: column;
}
header {
  display: flex;
  gap: 16px;
  justify-content: space-between;
  align-items: flex-start;
  padding-bottom: 8px;
  border-bottom: 1.5px solid var(--rule-strong);
}
header p {
  margin: 2px 0 0;
}
.acts {
  display: flex;
  gap: 10px;
  flex: none;
}
.lists {
  flex: 1;
  min-height: 0;
  overflow: auto;
  padding-top: 8px;
}
ul {
  list-style: none;
  margin-bottom: 14px;
}
li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1.4fr) 70px;
  gap: 10px;
  padding: 5px 0;
  border-bottom: 1px solid var(--rule);
  content-visibility: auto;
  contain-intrinsic-size: auto 32px;
}
.problem {
  grid-template-columns: 60px minmax(0, 1fr) minmax(0, 1.6fr);
}
label {
  display: flex;
  gap: 8px;
  align-items: center;
}
input {
  margin: 0;
  accent-color: var(--tide-text);
}
.fields {
  display: grid;
  gap: 2px;
}
@media (max-width: 900px) {
  header,
  .acts {
    flex-wrap: wrap;
  }
  .lists {
    overflow: visible;
  }
  li,
  .problem {
    grid-template-columns: minmax(0, 1fr);
    gap: 2px;
  }
}
</style>
