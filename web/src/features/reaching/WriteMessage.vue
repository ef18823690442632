<script setup lang="ts">
import { computed, ref } from 'vue'

/** A message before it goes: to whom, what it says, and what it lacks. */
const props = defineProps<{ to: string; sending: boolean; toOutbox: boolean; link?: string | null }>()
const message = defineModel<{ subject: string; text: string }>({ required: true })
const emit = defineEmits<{ send: []; leave: [] }>()
const place = '{link}'
const typed = ref('')
const lacksLink = computed(() => props.link === null && message.value.text.includes(place))
function send() {
  if (lacksLink.value)
    message.value = { ...message.value, text: message.value.text.replaceAll(place, typed.value.trim()) }
  emit('send')
}
</script>

<template>
  <form class="mt-2 max-w-[46rem] text-small" @submit.prevent="send">
    <p class="font-semibold">To {{ to }}</p>
    <input v-model="message.subject" class="field" aria-label="Subject" />
    <textarea v-model="message.text" class="field" rows="9" aria-label="Message" />
    <label v-if="lacksLink" class="block"
      ><b>This lesson has no link to its meeting, and the message speaks of one.</b> Type the link, or take the line
      out.
      <input v-model="typed" class="field" type="url" required placeholder="https://" aria-label="Link to the meeting"
    /></label>
    <p class="flex gap-x-4">
      <button class="press-first" :disabled="sending">{{ sending ? 'Sending…' : 'Send it' }}</button>
      <button type="button" class="quiet" @click="emit('leave')">not now</button>
    </p>
    <p v-if="toOutbox" class="pt-1 text-ink-soft italic">
      No mail server is set up: it lies in the outbox until somebody sends it.
    </p>
  </form>
</template>
