<script setup lang="ts">
import { ref } from 'vue'
import type { Schemas } from '../../api/client'
import { vFocus } from '../../ui/vFocus'

/** What a student says is wrong, with the entry it is about, and the answer or a place to write one. */
defineProps<{ objection: Schemas['ObjectionLine'] }>()
const emit = defineEmits<{ answer: [text: string] }>()
const writing = ref(false)
const text = ref('')
</script>

<template>
  <p class="text-small">
    <template v-if="objection.about">Of “{{ objection.about }}”: </template><bdi>{{ objection.text }}</bdi>
    <template v-if="objection.answeredAt">
      <span class="block text-ink-soft"
        >{{ objection.answeredBy }} answered: <bdi>{{ objection.answer }}</bdi></span
      >
    </template>
  </p>
  <template v-if="!objection.answeredAt">
    <form v-if="writing" class="mt-1 flex flex-wrap items-baseline gap-2" @submit.prevent="emit('answer', text.trim())">
      <textarea
        v-model="text"
        v-focus
        class="field !w-full"
        rows="2"
        maxlength="1000"
        :aria-label="`Your answer to ${objection.called}`"
        @keydown.ctrl.enter.prevent="text.trim() && emit('answer', text.trim())"
        @keydown.esc.stop="writing = false"
      />
      <button class="press" :disabled="!text.trim()">Answer</button>
      <button type="button" class="quiet text-small" @click="writing = false">leave it</button>
    </form>
    <p v-else class="flex gap-4 text-small">
      <button class="quiet font-semibold" @click="writing = true">Answer</button>
      <slot />
    </p>
  </template>
</template>
