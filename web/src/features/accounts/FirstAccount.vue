<script setup lang="ts">
import { ref } from 'vue'
import { api, ask } from '../../api/client'
import { vFocus } from '../../ui/vFocus'

/** Makes the account that everything here will belong to. */
defineProps<{ busy: boolean; asksForWord: boolean }>()
const emit = defineEmits<{ go: [action: () => Promise<unknown>] }>()
const email = ref('')
const password = ref('')
const name = ref('')
const school = ref('')
const word = ref('')
const zone = ref(Intl.DateTimeFormat().resolvedOptions().timeZone)
const zones = Intl.supportedValuesOf('timeZone')
if (!zones.includes(zone.value)) zones.unshift(zone.value)

const makeAccount = () =>
  emit('go', () =>
    ask(
      api.POST('/api/accounts', {
        body: {
          email: email.value,
          password: password.value,
          name: name.value,
          school: school.value,
          timeZone: zone.value,
          word: word.value || null,
        },
      }),
    ),
  )
</script>

<template>
  <form class="grid gap-4" @submit.prevent="makeAccount">
    <h2 class="text-head font-bold">Make the first account</h2>
    <p class="-mt-3 text-ink-soft">Nobody has an account here yet. It stays on this machine.</p>
    <label>Your name<input v-model="name" v-focus class="field" required maxlength="100" autocomplete="name" /></label>
    <label>School<input v-model="school" class="field" required maxlength="100" autocomplete="organization" /></label>
    <label>
      Time zone of the school
      <select v-model="zone" class="field">
        <option v-for="z in zones" :key="z">{{ z }}</option>
      </select>
    </label>
    <label>E-mail address<input v-model="email" class="field" type="email" required autocomplete="username" /></label>
    <label>
      Password, ten characters or more
      <input v-model="password" class="field" type="password" required minlength="10" autocomplete="new-password" />
    </label>
    <label v-if="asksForWord"
      >The word that the program said when it started<input v-model="word" class="field" required autocomplete="off"
    /></label>
    <div><button class="press-first" :disabled="busy">Make the account</button></div>
  </form>
</template>
