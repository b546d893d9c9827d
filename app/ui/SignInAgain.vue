<script setup lang="ts">
/** A session that ended while one works: one signs in again in place, and what waited is done. */
const session = useSession()
const route = useRoute()
const login = ref('')
const password = ref('')
const name = ref<HTMLInputElement>()
onMounted(() => name.value?.focus())
const {
  run: enter,
  busy,
  problem,
} = useAction(async () => {
  const before = session.person?.id
  await session.signIn(login.value, password.value)
  // What waits here is somebody else's: it is not saved in this person's name.
  if (before && session.person?.id !== before) return window.location.reload()
  session.signedInAgain(true)
})
async function leave(): Promise<void> {
  session.signedInAgain(false)
  session.forget()
  await navigateTo({ path: '/sign-in', query: { back: route.fullPath } })
}
</script>

<template>
  <section class="again" role="dialog" aria-labelledby="sign-in-again">
    <form @submit.prevent="enter">
      <h2 id="sign-in-again">Your session has ended</h2>
      <p>What you changed waits on this page. Sign in again, and it is saved.</p>
      <FormField label="Name">
        <input ref="name" v-model="login" class="text-box" autocomplete="username" required />
      </FormField>
      <FormField label="Password">
        <input v-model="password" class="text-box" type="password" autocomplete="current-password" required />
      </FormField>
      <ActionProblem :problem="problem" line />
      <p class="acts">
        <button class="act" type="submit" :disabled="busy">Sign in again</button>
        <button class="link" type="button" @click="leave">Leave the page without saving</button>
      </p>
    </form>
  </section>
</template>

<style scoped>
.again {
  position: fixed;
  inset: 42px 0 auto;
  z-index: 3000;
  background: var(--paper-raised);
  border-bottom: 2px solid var(--brass);
  padding: 14px var(--gutter) 16px;
}
form {
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 220px)) 1fr;
  gap: 6px 18px;
  align-items: end;
}
h2,
form > p {
  grid-column: 1 / -1;
  margin: 0;
}
.acts {
  display: flex;
  gap: 18px;
  align-items: center;
  padding-top: 6px;
}
@media (max-width: 560px) {
  form {
    grid-template-columns: 1fr;
  }
}
</style>
