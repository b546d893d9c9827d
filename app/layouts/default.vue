<script setup lang="ts">
const session = useSession()
const route = useRoute()
const finding = ref(false)
const listing = ref(false)
const menu = ref(false)
const { told } = usePageFocus()
// A model must be a variable of this component, not an import.
const single = letterKeys
const { store: theme } = useTheme()
const themes = { auto: 'as this device', light: 'day', dark: 'night' }
const links = [
  { to: '/', name: 'Shells', key: 'g s' },
  { to: '/rollovers', name: 'Rollovers', key: 'g r' },
  { to: '/shelf', name: 'Shelf', key: 'g t' },
  { to: '/files', name: 'Files', key: 'g f' },
  { to: '/codes', name: 'Codes', key: 'g d' },
  { to: '/log', name: 'Log', key: 'g o' },
  { to: '/people', name: 'People', key: 'g p' },
  { to: '/batches', name: 'Batches', key: 'g b' },
  { to: '/sweep', name: 'Sweep', key: 'g w' },
]
const ofOffice = ['/people', '/batches', '/sweep']
const isOffice = computed(() => session.person?.duties.includes('office') ?? false)
const shown = computed(() => links.filter(link => isOffice.value || !ofOffice.includes(link.to)))
const isCurrent = (to: string): boolean =>
  to === '/'
    ? route.path === '/' || /^\/(fill|no-shell|registrar)/.test(route.path)
    : route.path.startsWith(to) || (to === '/rollovers' && /^\/((plans|runs)\/|habits)/.test(route.path))

useKeyboard()
useKeys([
  {
    key: '/',
    does: 'find a course',
    run: () => {
      finding.value = true
    },
  },
  {
    key: '?',
    does: 'this list of keys',
    run: () => {
      listing.value = !listing.value
      menu.value = false
    },
  },
  ...links.map(link => ({
    key: link.key,
    does: `go to ${link.name}`,
    hidden: ofOffice.includes(link.to),
    run: () => {
      if (shown.value.includes(link)) void navigateTo(link.to)
    },
  })),
  {
    key: 'Escape',
    does: 'close',
    hidden: true,
    run: () => {
      listing.value = false
      menu.value = false
    },
  },
])
// Another page closes them; another row or stage of the same page, which has an address too, does not.
watch(
  () => route.path,
  () => {
    finding.value = false
    listing.value = false
    menu.value = false
  },
)
async function leave(): Promise<void> {
  await session.signOut()
  await navigateTo('/sign-in')
}
</script>

<template>
  <div class="frame">
    <a class="skip" href="#work">To the content</a>
    <header class="top-line">
      <NuxtLink to="/" class="word-mark">Northtide</NuxtLink>
      <nav aria-label="Pages">
        <NuxtLink
          v-for="link in shown"
          :key="link.to"
          :to="link.to"
          :class="{ current: isCurrent(link.to) }"
          :aria-current="isCurrent(link.to) ? 'page' : undefined"
          >{{ link.name }}</NuxtLink
        >
      </nav>
      <span class="spring" />
      <FindCourse v-if="finding" @close="finding = false" />
      <button v-else class="quiet" type="button" @click="finding = true">
        <kbd v-if="single">/</kbd> find <span class="wide">a course</span>
      </button>
      <button class="quiet wide" type="button" :aria-expanded="listing" @click="listing = !listing">
        <kbd v-if="single">?</kbd> keys
      </button>
      <span
        v-if="session.session"
        class="soft small wide"
        :title="session.session.clock.fixed ? 'The clock is stopped here (NORTHTIDE_NOW)' : 'Now'"
        >{{ instantText(session.session.clock.instant) }} {{ zoneText(session.session.clock.timeZone)
        }}{{ session.session.clock.fixed ? ', demo clock' : '' }}</span
      >
      <span v-if="session.person" class="who">
        <button class="quiet" type="button" :aria-expanded="menu" @click="menu = !menu">
          {{ session.person.name }}
        </button>
        <div v-if="menu" class="drop">
          <p class="soft small">
            {{
              session.person.duties.length
                ? session.person.duties.map(duty => (duty === 'office' ? 'academic office' : duty)).join(', ')
                : 'teaching staff'
            }}
          </p>
          <label class="theme"
            >Colours
            <select v-model="theme">
              <option v-for="(words, name) in themes" :key="name" :value="name">{{ words }}</option>
            </select></label
          >
          <ElCheckbox v-model="single">Single letters are keys</ElCheckbox>
          <NuxtLink to="/you">Your sign-ins and password</NuxtLink>
          <button class="link" type="button" @click="listing = true">Show the list of keys</button>
          <button class="link" type="button" @click="leave">Sign out</button>
        </div>
      </span>
    </header>
    <KeyList v-if="listing" @close="listing = false" />
    <SignInAgain v-if="session.ended" />
    <div id="work" class="work" tabindex="-1"><slot /></div>
    <p class="visually-hidden" aria-live="polite">{{ told }}</p>
  </div>
</template>

<style scoped>
.frame {
  height: 100vh;
  display: flex;
  flex-direction: column;
}
.skip {
  position: absolute;
  left: -9999px;
}
.skip:focus {
  left: 12px;
  top: 8px;
  background: var(--paper-raised);
  padding: 4px 8px;
  z-index: 20;
}
.top-line {
  display: flex;
  align-items: center;
  gap: 18px;
  height: 42px;
  padding: 0 var(--gutter);
  border-bottom: 1px solid var(--rule);
  flex: none;
  position: relative;
}
.word-mark {
  font: italic 600 22px/1 var(--serif);
  color: var(--ink);
  text-decoration: none;
  margin-right: 8px;
}
nav {
  display: flex;
  gap: 22px;
  align-self: stretch;
}
nav a {
  color: var(--ink-soft);
  text-decoration: none;
  display: flex;
  align-items: center;
  border-bottom: 2px solid transparent;
  border-top: 2px solid transparent;
}
nav a.current {
  color: var(--ink);
  border-bottom-color: var(--tide);
}
nav a:hover {
  color: var(--ink);
}
.spring {
  flex: 1;
}
.quiet {
  background: none;
  border: 0;
  padding: 4px 0;
  color: var(--ink-soft);
  cursor: pointer;
}
.quiet:hover {
  color: var(--ink);
}
.who {
  position: relative;
}
.who .quiet {
  color: var(--ink);
}
.drop {
  position: absolute;
  right: 0;
  top: 34px;
  z-index: 10;
  background: var(--paper-raised);
  border: 1px solid var(--ink-soft);
  padding: 10px 14px;
  width: 240px;
  display: grid;
  gap: 8px;
  justify-items: start;
}
.drop p {
  margin: 0;
}
.theme select {
  font: inherit;
  margin-left: 8px;
  border: 1px solid var(--rule-field);
  background: var(--paper-raised);
  color: var(--ink);
}
.work {
  flex: 1;
  min-height: 0;
  overflow: auto;
  outline: none;
}
@media (max-width: 900px) {
  .frame {
    height: auto;
    min-height: 100vh;
  }
  .top-line {
    flex-wrap: wrap;
    height: auto;
    gap: 4px 16px;
    padding-block: 6px;
  }
  nav {
    order: 1;
    flex-basis: 100%;
    flex-wrap: wrap;
    gap: 0 16px;
  }
  .work {
    overflow: visible;
  }
}
@media (max-width: 620px) {
  .wide {
    display: none;
  }
  .top-line {
    gap: 4px 12px;
  }
  nav {
    gap: 0 12px;
    font-size: 13px;
  }
}
@media print {
  .frame {
    height: auto;
    display: block;
  }
  .work {
    overflow: visible;
  }
}
</style>
