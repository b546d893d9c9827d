<script setup lang="ts">
import { present } from '~~/core/present'
import { useStagePlan } from '../plan/store'

/** Files that come and could not be looked into: by name, with why and how large. One decision is for all of them. */
const emit = defineEmits<{ settled: [] }>()
const { store, plan, document } = useStagePlan()
const session = useSession()
const open = computed(() => store.unseenToSettle)
const agreed = computed(() => store.unseen.filter(({ id }) => document.value.traces.unseen[id]))
const who = computed(() =>
  [...new Set(agreed.value.map(({ id }) => document.value.traces.unseen[id]?.by))].join(', '),
)
const inPlace = computed(() => plan.value.mode === 'in-place')
const may = computed(() => plan.value.may.edit && plan.value.state === 'draft')
const filesText = (n: number): string => counted(n, 'file')
function carryUnseen(): void {
  store.agreeUnseen(
    open.value.map(({ id }) => id),
    present(session.person).name,
  )
  emit('settled')
}
function leave(): void {
  store.carry([...new Set(open.value.map(({ on }) => on))], false)
  emit('settled')
}
function undo(): void {
  store.agreeUnseen(
    agreed.value.map(({ id }) => id),
    null,
  )
  emit('settled')
}
</script>

<template>
  <section
    v-if="store.unseen.length"
    :class="['note', open.length ? 'brass' : '']"
    aria-labelledby="unseen-head"
  >
    <h3 id="unseen-head">
      {{
        open.length
          ? `${filesText(open.length)} could not be looked into`
          : `${filesText(agreed.length)} ${agreed.length === 1 ? 'comes' : 'come'} without a look into ${agreed.length === 1 ? 'it' : 'them'}`
      }}
    </h3>
    <p v-if="open.length" class="small">
      {{ open.length === 1 ? 'It' : 'Any of them' }} may name students of last term. Look yourself, then say
      whether {{ open.length === 1 ? 'it comes' : 'they come' }}.
    </p>
    <p v-else class="small">
      {{ who }} said so. The record will name {{ agreed.length === 1 ? 'it' : 'them' }}.
    </p>
    <ul class="small">
      <li v-for="{ id, title, file, why, size } in store.unseen" :key="id">
        <b
          ><bdi>{{ title }}</bdi></b
        >{{ ' ' }}<bdi v-if="file" class="soft">({{ file }})</bdi>{{ ' ' }}
        <span class="soft">{{ bytesText(size) }}. {{ why }}</span>
      </li>
    </ul>
    <p v-if="may" class="acts small">
      <template v-if="open.length">
        <button class="link" type="button" @click="carryUnseen">
          {{ inPlace ? 'Keep' : 'Carry' }} {{ open.length === 1 ? 'it' : `all ${open.length}` }} unseen
        </button>
        <button v-if="!inPlace" class="link" type="button" @click="leave">
          Leave {{ open.length === 1 ? 'it' : `all ${open.length}` }} behind
        </button>
      </template>
      <button v-if="agreed.length" class="link" type="button" @click="undo">
        Ask again about {{ filesText(agreed.length) }}
      </button>
    </p>
  </section>
</template>

<style scoped>
.note {
  margin: 4px 0 14px;
}
ul {
  list-style: none;
  margin-top: 4px;
}
li {
  padding: 2px 0;
  overflow-wrap: anywhere;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 16px;
  margin-top: 6px;
}
</style>
