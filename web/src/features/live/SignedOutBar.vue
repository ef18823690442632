<script setup lang="ts">
import { session } from '../../api/session'
import { useLive } from '../../live/lesson'
import { count } from '../../ui/format'
import { useSigningIn } from '../accounts/signingIn'

/** Signed out in the middle of a lesson: signing in is done here, the lesson stays where it is, and what waits is sent. */
const { away, waiting, signedInAgain } = useLive()
const was = session.value?.account
const offersDemo = session.value?.offersDemo && was?.isDemo
const { email, password, problem, busy, lookAround, signIn } = useSigningIn((now) => {
  password.value = ''
  const is = now?.account
  if (was && is && (is.name !== was.name || is.school !== was.school))
    problem.value = `This lesson is taught by ${was.name}. Sign in as ${was.name}, then what waits is stored.`
  else signedInAgain()
})
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
