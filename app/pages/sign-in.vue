<script setup lang="ts">
definePageMeta({ layout: false })
useHead({ title: 'Sign in · Northtide' })
const session = useSession()
const route = useRoute()
const login = ref('')
const password = ref('')
const {
  run: enter,
  busy,
  problem,
} = useAction(async () => {
  await session.signIn(login.value, password.value)
  const back = String(route.query.back ?? '/')
  await navigateTo(/^\/(?!\/)/.test(back) ? back : '/')
})
</script>

<template>
  <DoorFrame motto="Last term’s course, this term’s calendar." @submit="enter">
    <label for="login">Name</label>
    <input id="login" v-model="login" autocomplete="username" autofocus required />
    <label for="password">Password</label>
    <input id="password" v-model="password" type="password" autocomplete="current-password" required />
    <p v-if="problem" class="wrong" role="alert">
      <strong>{{ problem.title }}.</strong>
      {{ problem.errors.map(error => error.message).join(' ') || problem.detail }}
    </p>
    <button class="act" type="submit" :disabled="busy">{{ busy ? 'Signing in …' : 'Sign in' }}</button>
    <p class="hint">No password yet, or forgotten? The academic office sends you a link to set one.</p>
  </DoorFrame>
</template>
