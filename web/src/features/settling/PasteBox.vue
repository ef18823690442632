<script setup lang="ts">
import { ref } from 'vue'
import { usePasting } from '../../ui/pasting'

/** What was copied is taken like a file: a chat, a list of names, a picture of one. Pasted anywhere on the page, or into the box. */
const emit = defineEmits<{ file: [file: File] }>()
const text = ref('')

usePasting((file) => emit('file', file), take)

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
      <textarea v-model="text" class="field boxed mt-1 block" rows="10"></textarea>
    </label>
    <button class="press mt-1" :disabled="!text.trim()" @click="take(text)">Take it</button>
  </details>
</template>
