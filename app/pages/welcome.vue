<script setup lang="ts">
import type { InvitedReply } from '~~/shared/api/session'

/** Where an invitation leads: its secret stands behind `#`, which a browser sends to no server. */
definePageMeta({ layout: false })
useHead({ title: 'Set your password · Northtide' })
const session = useSession()
const route = useRoute()
const secret = computed(() => route.hash.replace(/^#/, ''))
const { data, problem, refresh } = useLoaded(() =>
  api.post<InvitedReply>('/invitations', { secret: secret.value }),
)
onMounted(refresh)
const password = ref('')
const {
  run: set,
  busy,
  problem: refused,
} = useAction(async () => {
  await session.setPasswordBy(secret.value, password.value)
  await navigateTo('/')
})
const fault = computed(() => refused.value?.errors.find(error => error.field === 'password')?.message)
</script>

<template>
  <DoorFrame motto="Set the password that you will sign in with." @submit="set">
    <template v-if="data">
      <p class="who">
        <b>{{ data.name }}</b>, you sign in as <b>{{ data.login }}</b>.
        <template v-if="session.person && session.person.name">
          On this device {{ session.person.name }} is signed in now; setting the password signs you in.
        </template>
      </p>
      <input type="text" :value="data.login" autocomplete="username" readonly hidden />
      <NewPassword v-model="password" :fault="fault" />
      <p v-if="refused && !fault" class="wrong" role="alert">
        <strong>{{ refused.title }}.</strong> {{ refused.detail }}
      </p>
      <button class="act" type="submit" :disabled="busy">
        {{ busy ? 'Setting it …' : 'Set the password and sign in' }}
      </button>
    </template>
    <template v-else-if="problem">
      <p class="wrong" role="alert">
        <strong>{{ problem.title }}.</strong> {{ problem.errors[0]?.message ?? problem.detail }}
      </p>
      <p class="hint">
        <NuxtLink to="/sign-in">Sign in with a password</NuxtLink>
        <template v-if="problem.status === 0 || problem.status >= 429">
          · <button class="link" type="button" @click="refresh">Open the link again</button>
        </template>
      </p>
    </template>
    <LoadingLines v-else what="Looking whom this link is for …" />
  </DoorFrame>
</template>

<style scoped>
.who {
  margin: 0 0 6px;
}
</style>
