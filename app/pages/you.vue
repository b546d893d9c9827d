<script setup lang="ts">
import type { SignInsReply } from '~~/shared/api/session'

useHead({ title: 'Your sign-ins and password · Northtide' })
const session = useSession()
const { data, problem, refresh } = useLoaded(() => api.get<SignInsReply>('/you/sign-ins'))
onMounted(refresh)
const {
  run: end,
  busy: ending,
  problem: endProblem,
} = useAction(async (id?: string) => {
  data.value = await api.delete<SignInsReply>(id ? `/you/sign-ins/${id}` : '/you/sign-ins')
})
const others = computed(() => data.value?.signIns.filter(each => !each.isThis) ?? [])

const current = ref('')
const password = ref('')
const changed = ref(false)
const {
  run: change,
  busy: changing,
  problem: refused,
} = useAction(async () => {
  changed.value = false
  await session.changePassword(current.value, password.value)
  current.value = password.value = ''
  changed.value = true
  await refresh()
})
const faultOf = (field: string): string | undefined =>
  refused.value?.errors.find(error => error.field === field)?.message
</script>

<template>
  <main class="page">
    <header>
      <h1>Your sign-ins and password</h1>
      <p v-if="data" class="soft">You sign in as {{ data.login }}. Each sign-in ends after 12 hours.</p>
    </header>
    <ProblemNote v-if="problem" :problem="problem" @retry="refresh" />
    <LoadingLines v-else-if="!data" what="Fetching where you are signed in …" />
    <div v-else class="beside">
      <section aria-labelledby="where">
        <h2 id="where">Where you are signed in</h2>
        <ActionProblem :problem="endProblem" />
        <table class="ruled">
          <thead>
            <tr>
              <th scope="col">Browser</th>
              <th scope="col">Since</th>
              <th scope="col">Last seen</th>
              <th scope="col"><span class="visually-hidden">End</span></th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="each in data.signIns" :key="each.id">
              <td>{{ each.device }} <span v-if="each.isThis" class="kept small">this one</span></td>
              <td class="soft">{{ instantText(each.startedAt) }}</td>
              <td class="soft">{{ instantText(each.seenAt) }}</td>
              <td>
                <button
                  v-if="!each.isThis"
                  class="link small"
                  type="button"
                  :disabled="ending"
                  :aria-label="`End the sign-in of ${each.device} since ${instantText(each.startedAt)}`"
                  @click="end(each.id)"
                >
                  End this sign-in
                </button>
              </td>
            </tr>
          </tbody>
        </table>
        <p v-if="others.length === 0" class="soft">You are signed in nowhere else.</p>
        <button v-else class="act plain" type="button" :disabled="ending" @click="end()">
          {{ others.length === 1 ? 'End the other sign-in' : `End the ${others.length} other sign-ins` }}
        </button>
      </section>
      <aside>
        <form @submit.prevent="change">
          <h2>Change your password</h2>
          <input type="text" :value="data.login" autocomplete="username" readonly hidden />
          <FormField label="Your password now" :fault="faultOf('current')">
            <input
              v-model="current"
              class="text-box"
              type="password"
              autocomplete="current-password"
              required
            />
          </FormField>
          <NewPassword v-model="password" :fault="faultOf('password')" />
          <ActionProblem :problem="refused?.errors.length ? null : refused" line />
          <p v-if="changed" class="kept" role="status">
            Your password is changed, and all other sign-ins have ended.
          </p>
          <button class="act" type="submit" :disabled="changing">
            {{ changing ? 'Changing it …' : 'Change the password' }}
          </button>
          <p class="small soft">Changing it ends your sign-ins everywhere else.</p>
        </form>
      </aside>
    </div>
  </main>
</template>

<style scoped>
.beside {
  --aside: 300px;
}
section .ruled {
  margin: 8px 0 12px;
}
form {
  display: grid;
  gap: 10px;
  justify-items: start;
}
form > :deep(label) {
  width: 100%;
}
form p {
  margin: 0;
}
</style>
