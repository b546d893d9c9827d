<script setup lang="ts">
import type { PlanReply } from '~~/shared/api/plans'
import { usePlan } from '../plan/store'

/** A plan that waits for a shell: which shells could be it, and how to attach one. */
const props = defineProps<{ plan: PlanReply }>()
const store = usePlan()
const {
  run: attach,
  busy,
  problem,
} = useAction(async (shell: string) => {
  await store.save()
  await api.put(`/plans/${props.plan.id}/shell`, { shell })
  await store.load(props.plan.id)
})
</script>

<template>
  <div v-if="plan.mode === 'roll'" class="note brass awaited" role="status">
    <h3>
      {{
        plan.fits.length
          ? `${plan.fits.length === 1 ? 'A shell' : 'Shells'} for this plan ${plan.fits.length === 1 ? 'has' : 'have'} come`
          : `The shell for ${plan.target.course.term.name} has not come yet`
      }}
    </h3>
    <p v-if="!plan.fits.length" class="small">
      Go on planning: everything is kept, and the dates follow the shell’s own meetings once it is attached.
      <NuxtLink :to="`/no-shell?way=missing`">Ask for the shell</NuxtLink>
    </p>
    <ul v-else>
      <li v-for="shell in plan.fits" :key="shell.id">
        <span
          ><b
            >{{ codeOf(shell) }} <bdi>{{ shell.title }}</bdi></b
          >
          <span class="soft small"
            >{{ meetingText(shell.meetings) || 'no meeting times known' }} ·
            {{ counted(shell.students, 'student') }} on the roster</span
          ></span
        ><button class="act" type="button" :disabled="busy || !plan.may.edit" @click="attach(shell.id)">
          Attach {{ codeText(shell) }}
        </button>
      </li>
    </ul>
    <ActionProblem :problem="problem" line />
  </div>
</template>

<style scoped>
.awaited {
  margin-bottom: 18px;
}
.awaited p:last-child {
  margin: 0;
}
ul {
  list-style: none;
}
li {
  display: flex;
  justify-content: space-between;
  gap: 16px;
  align-items: center;
  padding: 5px 0;
}
b {
  font-weight: 600;
}
</style>
