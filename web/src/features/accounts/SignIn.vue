<script setup lang="ts">
import { useRoute, useRouter } from 'vue-router'
import Notice from '../../ui/Notice.vue'
import { loadSession, session } from '../../api/session'
import FirstAccount from './FirstAccount.vue'
import { useSigningIn } from './signingIn'

const route = useRoute()
const router = useRouter()
const { email, password, problem, busy, go, lookAround, signIn } = useSigningIn(() =>
  router.push(typeof route.query.to === 'string' && /^\/(?!\/)/.test(route.query.to) ? route.query.to : '/'),
)

void loadSession().then((found) => {
  if (!found) problem.value = 'The server does not answer. Start it with ./start.sh, then load this page again.'
})
</script>

<template>
  <main class="door">
    <section class="words">
      <svg class="strokes" viewBox="0 0 230 130" aria-hidden="true">
        <g fill="none" stroke="currentColor" stroke-width="7" stroke-linecap="round">
          <path d="M40 14 34 116M78 12 75 118M116 13 113 117M153 12 151 118" />
          <path class="fifth" d="M10 98 188 34" />
        </g>
      </svg>
      <h1 class="mt-4 text-title font-bold">Polite Tally</h1>
      <p class="mt-2 max-w-[26rem] text-lead">
        Keeps the count of who took part in a live online lesson, and can give
        <span class="marked">a reason for every point</span>.
      </p>
    </section>

    <section class="form" aria-label="Sign in">
      <!-- What is offered is known a moment later; nothing moves under the finger then. -->
      <template v-if="session || problem">
        <template v-if="session?.offersDemo">
          <h2 class="text-head font-bold">Look around first</h2>
          <p class="mt-1 text-ink-soft">
            The demo school is here: three classes, a term of lessons, one of them going on now. All made up.
          </p>
          <button class="press-first mt-3" :disabled="busy" @click="lookAround">Look around as Tamsin Vale</button>
          <p class="mt-8 border-t border-rule pt-5 font-semibold">Or sign in</p>
        </template>
        <FirstAccount v-if="session?.awaitsFirstAccount" :busy="busy" :asks-for-word="session.asksForWord" @go="go" />
        <form v-else class="mt-3 grid gap-4" @submit.prevent="signIn">
          <h2 v-if="!session?.offersDemo" class="text-head font-bold">Sign in</h2>
          <label
            >E-mail address<input v-model="email" class="field" type="email" required autocomplete="username"
          /></label>
          <label
            >Password<input v-model="password" class="field" type="password" required autocomplete="current-password"
          /></label>
          <div><button :class="session?.offersDemo ? 'press' : 'press-first'" :disabled="busy">Sign in</button></div>
        </form>
        <Notice v-if="problem" tone="wrong" class="mt-4">{{ problem }}</Notice>
      </template>
    </section>
  </main>
</template>

<style scoped>
.door {
  display: grid;
  grid-template-columns: 1fr 1fr;
  min-height: 100dvh;
}
.words {
  align-self: center;
  padding: 40px 48px 40px clamp(24px, 9vw, 130px);
}
.strokes {
  width: 200px;
  margin-left: -8px;
}
.fifth {
  stroke: var(--pen-speaking);
}
.form {
  align-self: stretch;
  display: flex;
  flex-direction: column;
  justify-content: center;
  max-width: 470px;
  border-left: 2px solid var(--margin);
  padding: 40px 24px 40px 44px;
}
@media (max-width: 760px) {
  .door {
    grid-template-columns: 1fr;
    /* What is offered comes a moment later, and moves nothing. */
    align-content: start;
  }
  .words,
  .form {
    padding: 24px;
  }
  .form {
    border-left: 0;
    border-top: 2px solid var(--margin);
    justify-content: start;
  }
  .strokes {
    width: 110px;
  }
}
</style>
