<script setup lang="ts">
import { watchDebounced } from '@vueuse/core'
import type { PeopleReply } from '~~/shared/api/people'
import type { InvitationReply } from '~~/shared/api/session'

useHead({ title: 'People · Northtide' })
const text = ref('')
const { data, problem, refresh } = useLoaded(() =>
  api.get<PeopleReply>(`/people?q=${encodeURIComponent(text.value)}`),
)
onMounted(refresh)
watchDebounced(text, () => void refresh(), { debounce: 150 })
const giving = ref<{ person: string; duty: 'coordinator' | 'office'; org: string } | null>(null)
const { run: put, problem: actProblem } = useAction(
  async (person: string, duty: { duty: 'coordinator' | 'office'; org: string; holds: boolean }) => {
    await api.put(`/people/${person}/duties`, duty)
    giving.value = null
  },
)
/** Whatever came of it, the list shows how things stand. */
async function change(
  person: string,
  duty: 'coordinator' | 'office',
  org: string,
  holds: boolean,
): Promise<void> {
  await put(person, { duty, org, holds })
  await refresh()
}
const invited = ref<{ name: string; login: string; sent: InvitationReply } | null>(null)
const {
  run: invite,
  busy: inviting,
  problem: inviteProblem,
} = useAction(async (id: string, name: string, login: string) => {
  invited.value = { name, login, sent: await api.post<InvitationReply>(`/people/${id}/invitation`, {}) }
  await refresh()
})
const { run: takeBack, problem: takeBackProblem } = useAction(async (id: string) => {
  await api.delete(`/people/${id}/invitation`)
  invited.value = null
  await refresh()
})
const dutyNames = { coordinator: 'coordinator', office: 'academic office' }
</script>

<template>
  <main class="page">
    <header>
      <h1>People</h1>
      <p class="soft">
        Staff who sign in. The registrar says who instructs and who assists; duties are given here. On a
        course’s page, its instructor can allow an assistant to run plans.
      </p>
    </header>
    <ElInput
      v-model="text"
      class="find"
      clearable
      placeholder="name or sign-in name"
      aria-label="Find a person"
    />
    <ProblemNote v-if="problem" :problem="problem" @retry="refresh" />
    <ActionProblem :problem="actProblem ?? inviteProblem ?? takeBackProblem" />
    <InvitationNote v-if="invited" v-bind="invited" @close="invited = null" />
    <LoadingLines v-if="!data && !problem" what="Fetching people …" />
    <table v-else-if="data?.people.length" class="ruled">
      <thead>
        <tr>
          <th scope="col">Person</th>
          <th scope="col">Signs in as</th>
          <th scope="col">Password</th>
          <th scope="col">Courses</th>
          <th scope="col">Duties</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="person in data.people" :key="person.id">
          <td>
            <b>{{ person.name }}</b><span v-if="!person.active" class="soft small"> · not active</span>
          </td>
          <td>{{ person.login }}</td>
          <td>
            <PersonPassword
              :person="person"
              :busy="inviting"
              @invite="invite(person.id, person.name, person.login)"
              @take-back="takeBack(person.id)"
            />
          </td>
          <td class="soft">
            {{
              [
                person.instructs && `instructs ${person.instructs}`,
                person.assists && `assists in ${person.assists}`,
              ]
                .filter(Boolean)
                .join(', ') || 'none'
            }}
          </td>
          <td>
            <p v-for="duty in person.duties" :key="duty.duty + duty.orgId">
              {{ dutyNames[duty.duty] }}, {{ duty.org }}
              <button
                class="link small"
                type="button"
                :aria-label="`Take ${dutyNames[duty.duty]} from ${person.name}`"
                @click="change(person.id, duty.duty, duty.orgId, false)"
              >
                Take away
              </button>
            </p>
            <form
              v-if="giving?.person === person.id"
              class="give"
              @submit.prevent="change(person.id, giving!.duty, giving!.org, true)"
            >
              <ElSelect v-model="giving.duty" aria-label="Duty"
                ><ElOption value="coordinator" label="coordinator" /><ElOption
                  value="office"
                  label="academic office"
              /></ElSelect>
              <ElSelect v-model="giving.org" aria-label="Of"
                ><ElOption v-for="org in data.orgs" :key="org.id" :value="org.id" :label="org.name"
              /></ElSelect>
              <button class="link" type="submit">Give</button
              ><button class="link" type="button" @click="giving = null">Cancel</button>
            </form>
            <button
              v-else
              class="link small"
              type="button"
              :aria-label="`Give ${person.name} a duty`"
              @click="giving = { person: person.id, duty: 'coordinator', org: data!.orgs[0]!.id }"
            >
              Give a duty …
            </button>
          </td>
        </tr>
      </tbody>
    </table>
    <p v-else-if="data" class="note">No one’s name or sign-in has “{{ text }}” in it.</p>
  </main>
</template>

<style scoped>
.find {
  width: 270px;
  margin-bottom: 12px;
}
td p {
  margin: 0 0 2px;
}
.give {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(110px, max-content));
  gap: 10px;
  align-items: center;
  justify-content: start;
}
.buoy {
  max-width: 560px;
  margin-bottom: 12px;
}
b {
  font-weight: 600;
}
</style>
