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
  <main class="door">
    <form @submit.prevent="enter">
      <h1>Northtide</h1>
      <p class="motto">Last term’s course, this term’s calendar.</p>
      <label for="login">Name</label>
      <input id="login" v-model="login" autocomplete="username" autofocus required />
      <label for="password">Password</label>
      <input id="password" v-model="password" type="password" autocomplete="current-password" required />
      <p v-if="problem" class="wrong" role="alert">
        <strong>{{ problem.title }}.</strong>
        {{ problem.errors.map(error => error.message).join(' ') || problem.detail }}
      </p>
      <button class="act" type="submit" :disabled="busy">{{ busy ? 'Signing in …' : 'Sign in' }}</button>
    </form>
    <svg class="tide" viewBox="0 0 1280 200" preserveAspectRatio="none" aria-hidden="true">
      <path
        v-for="line in 5"
        :key="line"
        :d="`M0 ${40 + line * 26} C 160 ${10 + line * 26}, 320 ${10 + line * 26}, 480 ${40 + line * 26} S 800 ${70 + line * 26}, 960 ${40 + line * 26} S 1200 ${14 + line * 26}, 1280 ${30 + line * 26}`"
      />
    </svg>
  </main>
</template>

<style scoped>
.door {
  min-height: 100vh;
  display: grid;
  place-items: center;
  position: relative;
  overflow: hidden;
}
form {
  width: 340px;
  display: grid;
  gap: 6px;
  margin-bottom: 120px;
  z-index: 1;
}
h1 {
  font: italic 600 44px/1 var(--serif);
}
.motto {
  font: 17px/1.4 var(--serif);
  color: var(--ink-soft);
  margin-bottom: 18px;
  border-bottom: 1.5px solid var(--ink);
  padding-bottom: 14px;
}
label {
  font-weight: 600;
  font-size: 13px;
  margin-top: 6px;
}
input {
  font: inherit;
  font-size: 15px;
  padding: 8px 10px;
  border: 1px solid var(--ink-soft);
  background: var(--paper-raised);
  color: var(--ink);
  border-radius: 2px;
}
.act {
  justify-self: start;
  margin-top: 14px;
  padding: 8px 22px;
}
.wrong {
  color: var(--buoy);
  margin: 8px 0 0;
}
.tide {
  position: absolute;
  left: 0;
  right: 0;
  bottom: 0;
  width: 100%;
  height: 200px;
}
.tide path {
  fill: none;
  stroke: var(--rule);
  stroke-width: 1.5;
  vector-effect: non-scaling-stroke;
}
</style>
