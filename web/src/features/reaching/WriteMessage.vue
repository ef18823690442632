<script setup lang="ts">
/** A message before it goes: to whom, and what it says. */
defineProps<{ to: string; sending: boolean; toOutbox: boolean }>()
const message = defineModel<{ subject: string; text: string }>({ required: true })
const emit = defineEmits<{ send: []; leave: [] }>()
</script>

<template>
  <form class="mt-2 max-w-[46rem] text-small" @submit.prevent="emit('send')">
    <p class="font-semibold">To {{ to }}</p>
    <input v-model="message.subject" class="field" aria-label="Subject" />
    <textarea v-model="message.text" class="field" rows="9" aria-label="Message" />
    <p class="flex gap-x-4">
      <button class="press-first" :disabled="sending">{{ sending ? 'Sending…' : 'Send it' }}</button>
      <button type="button" class="quiet" @click="emit('leave')">not now</button>
    </p>
    <p v-if="toOutbox" class="pt-1 text-ink-soft italic">
      No mail server is set up: it lies in the outbox until somebody sends it.
    </p>
  </form>
</template>
