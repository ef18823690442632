<script setup lang="ts">
import { computed } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { api, ask } from './api/client'
import { renewSession, session } from './api/session'
import ThemeChoice from './ui/ThemeChoice.vue'

const route = useRoute()
const router = useRouter()
const bare = computed(() => route.meta.bare || !session.value?.account || route.meta.open)

async function signOut() {
  await ask(api.DELETE('/api/session'))
  await renewSession()
  await router.push({ name: 'sign-in' })
}
</script>

<template>
  <header v-if="!bare" class="no-print flex flex-wrap items-center gap-x-6 gap-y-1 border-b-2 border-ink px-7 py-2.5">
    <RouterLink to="/" class="flex items-center gap-2.5 text-lead font-bold" aria-label="Polite Tally, to the desk">
      <svg
        width="24"
        height="20"
        viewBox="0 0 24 20"
        aria-hidden="true"
        fill="none"
        stroke="currentColor"
        stroke-width="2"
        stroke-linecap="round"
      >
        <path d="M4.4 2 3.6 18M9.3 1.6 9.1 18.2M14.2 2 13.8 18M19 1.8l-.2 16.4" />
        <path d="M1 14.8 22.6 5" />
      </svg>
      Polite Tally
    </RouterLink>
    <nav class="flex gap-5" aria-label="Main">
      <RouterLink to="/" class="tab">Desk</RouterLink>
      <RouterLink to="/calendar" class="tab">Calendar</RouterLink>
      <RouterLink to="/classes" class="tab">Classes</RouterLink>
      <RouterLink to="/shelf" class="tab">Shelf</RouterLink>
      <RouterLink to="/outbox" class="tab">Outbox</RouterLink>
    </nav>
    <p class="ml-auto flex flex-wrap items-baseline gap-5 text-small text-ink-soft">
      <span>{{ session?.account?.name }}, {{ session?.account?.school }}</span>
      <ThemeChoice />
      <button class="quiet" @click="signOut">Sign out</button>
    </p>
  </header>
  <RouterView />
</template>

<style scoped>
.tab {
  padding: 2px 0;
  color: var(--ink-soft);
}
.tab.router-link-exact-active {
  color: var(--ink);
  font-weight: 700;
  border-bottom: 2.5px solid var(--ink);
}
</style>
