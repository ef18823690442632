<script setup lang="ts">
import { useEventListener } from '@vueuse/core'
import { ref } from 'vue'

/** What was copied is taken like a file: a chat, a list of names, a picture of one. Pasted anywhere on the page, or into the box. */
const emit = defineEmits<{ file: [file: File] }>()
const text = ref('')

const isTyping = (target: EventTarget | null) =>
  target instanceof HTMLElement && !!target.closest('input, textarea, select, [contenteditable]')

useEventListener(document, 'paste', (event) => {
  const files = [...(event.clipboardData?.files ?? [])]
  if (files.length) files.forEach((file) => emit('file', file))
  else if (!isTyping(event.target)) take(event.clipboardData?.getData('text/plain') ?? '')
  else return
  event.preventDefault()
})

function take(pasted: string) {
  if (pasted.trim()) emit('file', new File([pasted], 'pasted.txt', { type: 'text/plain' }))
  text.value = ''
}
</script>

<template>
  <details>
    <summary class="quiet inline-block">or paste it</summary>
    <label class="mt-1 block">
      <span class="text-small text-ink-soft"
        >A chat, a list of names, answers; a picture can be pasted anywhere on this page.</span
      >
      <textarea v-model="text" class="field mt-1 block w-full" rows="5"></textarea>
    </label>
    <button class="press mt-1" :disabled="!text.trim()" @click="take(text)">Take it</button>
  </details>
</template>
