<script setup lang="ts">
import { ref } from 'vue'
import { api, ask } from '../../api/client'
import { renewSession, session } from '../../api/session'
import { useLive } from '../../live/lesson'
import { count } from '../../ui/format'

/** Signed out in the middle of a lesson: signing in is done here, the lesson stays where it is, and what waits is sent. */
const { away, waiting, signedInAgain } = useLive()
const email = ref('')
const password = ref('')
const problem = ref('')
const busy = ref(false)
const was = session.value?.account
const offersDemo = session.value?.offersDemo && was?.isDemo

async function go(action: () => Promise<unknown>) {
  busy.value = true
  problem.value = ''
  try {
    await action()
    const now = (await renewSession())?.account
    if (was && now && (now.name !== was.name || now.school !== was.school))
      problem.value = `This lesson is taught by ${was.name}. Sign in as ${was.name}, then what waits is stored.`
    else signedInAgain()
  } catch (failure) {
    problem.value = (failure as Error).message
  } finally {
    busy.value = false
    password.value = ''
  }
}
const signIn = () => go(() => ask(api.POST('/api/session', { body: { email: email.value, password: password.value } })))
const lookAround = () => go(() => ask(api.POST('/api/session/demo')))
</script>

<template>
  <section v-if="away === 'signedOut'" class="signed-out" aria-label="Signed out">
    <p role="alert">
      <b>You are signed out.</b>
      {{
        waiting ? `${count(waiting, 'entry', 'entries')} in pencil ${waiting === 1 ? 'waits' : 'wait'} here. ` : ''
      }}Go on teaching, and sign in here: everything you note is kept and stored then.
    </p>
    <form class="flex flex-wrap items-baseline gap-x-4 gap-y-1" @submit.prevent="signIn">
      <label
        >E-mail address <input v-model="email" class="field" type="email" required autocomplete="username"
      /></label>
      <label
        >Password <input v-model="password" class="field" type="password" required autocomplete="current-password"
      /></label>
      <button class="press-first" :disabled="busy">Sign in</button>
      <button v-if="offersDemo" type="button" class="press" :disabled="busy" @click="lookAround">
        Look around as {{ was?.name }}
      </button>
      <b v-if="problem" role="alert">{{ problem }}</b>
    </form>
  </section>
</template>

<style scoped>
.signed-out {
  position: fixed;
  inset: 0 0 auto;
  z-index: 5;
  display: grid;
  gap: 6px;
  padding: 10px 20px 12px;
  background: var(--paper);
  border-bottom: 3px solid var(--ink);
  font-size: var(--text-small);
}
.field {
  display: inline-block;
  width: 15em;
}
</style>
