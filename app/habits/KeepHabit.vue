<script setup lang="ts">
import type { KeepableReply } from '~~/shared/api/habits'
import HabitTold from './HabitTold.vue'

/** Keeps the decisions of a run as a habit: for oneself, or for a department that one has a duty for. */
const props = defineProps<{ run: string; term: string }>()
const asking = ref(false)
const { data, problem, refresh } = useLoaded(() => api.get<KeepableReply>(`/runs/${props.run}/habits`))
onMounted(refresh)
const name = ref('')
const department = ref('')
const usual = ref(true)
const chosen = computed(() => data.value?.departments.find(each => each.id === department.value) ?? null)
/** What would be kept, as it would be told. */
const would = computed(() =>
  data.value ? { ...data.value, decides: chosen.value?.decides ?? data.value.decides } : null,
)
const kept = ref('')
const {
  run: keep,
  busy,
  problem: keepProblem,
} = useAction(async () => {
  await api.post(`/runs/${props.run}/habits`, {
    name: name.value,
    department: department.value || null,
    usual: usual.value,
  })
  kept.value = `Kept as “${name.value}”${chosen.value ? ` for ${chosen.value.name}` : ''}.`
  asking.value = false
  await refresh()
})
const faultOf = (field: string): string | undefined =>
  keepProblem.value?.errors.find(error => error.field === field)?.message
const otherProblem = computed(() => (faultOf('name') || faultOf('department') ? null : keepProblem.value))
function ask(): void {
  asking.value = true
  name.value = name.value || `As in ${props.term}`
}
</script>

<template>
  <section class="keep no-print" aria-label="Remember these decisions">
    <p v-if="kept" class="kept" role="status">{{ kept }} <NuxtLink to="/habits">See your habits</NuxtLink></p>
    <p v-else-if="data?.kept.length && !asking" class="small soft">
      Remembered as
      <NuxtLink to="/habits">{{ data.kept.map(each => `“${each.name}”`).join(', ') }}</NuxtLink>.
    </p>
    <button v-if="!asking" class="act plain" type="button" :disabled="!data && !problem" @click="ask">
      Remember these decisions …
    </button>
    <ProblemNote v-if="problem && asking" :problem="problem" @retry="refresh" />
    <form v-else-if="asking && would" @submit.prevent="keep">
      <h3>Remember these decisions</h3>
      <HabitTold :habit="would" />
      <div class="fields">
        <FormField label="Name of the habit" :fault="faultOf('name')"
          ><ElInput v-model="name" size="small" maxlength="80" aria-label="Name of the habit"
        /></FormField>
        <FormField v-if="data?.departments.length" label="For" :fault="faultOf('department')"
          ><ElSelect v-model="department" aria-label="For">
            <ElOption value="" label="myself" />
            <ElOption
              v-for="each in data.departments"
              :key="each.id"
              :value="each.id"
              :label="each.name"
            /> </ElSelect
        ></FormField>
      </div>
      <ElCheckbox v-model="usual"
        >{{ chosen ? `Plans in ${chosen.name}` : 'My plans' }} begin with it from now on</ElCheckbox
      >
      <ActionProblem :problem="otherProblem" line />
      <p class="acts">
        <button class="act" type="submit" :disabled="busy || name.trim() === ''">
          {{ busy ? 'Keeping it …' : 'Keep the habit' }}
        </button>
        <button class="link" type="button" @click="asking = false">Not now</button>
      </p>
    </form>
  </section>
</template>

<style scoped>
.keep {
  margin: 14px 0;
}
.keep p {
  margin: 0 0 6px;
}
form {
  border-top: 1px solid var(--rule);
  border-bottom: 1px solid var(--rule);
  padding: 10px 0;
  max-width: 720px;
  display: grid;
  gap: 8px;
}
.fields {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 18px;
}
.fields > * {
  min-width: 240px;
}
.acts {
  display: flex;
  gap: 18px;
  align-items: center;
}
</style>
