<script setup lang="ts">
import { ref } from 'vue'
import { Dialog, DialogPanel, DialogTitle } from '@headlessui/vue'

/** Words to read to the class, so large that they are read from the screen while looking up. */
defineProps<{ title?: string; words: string }>()
const emit = defineEmits<{ close: [] }>()
const close = ref<HTMLButtonElement>()
</script>

<template>
  <Dialog :open="title !== undefined" class="relative z-10" :initial-focus="close" @close="emit('close')">
    <div class="fixed inset-0 overflow-y-auto bg-paper">
      <DialogPanel class="mx-auto flex min-h-full max-w-[46rem] flex-col justify-center px-6 py-8">
        <DialogTitle class="text-small text-ink-soft">{{ title }}</DialogTitle>
        <p class="words" dir="auto">{{ words }}</p>
        <p class="mt-8"><button ref="close" class="press-first" @click="emit('close')">Done</button></p>
      </DialogPanel>
    </div>
  </Dialog>
</template>

<style scoped>
.words {
  margin-top: 12px;
  font-size: clamp(22px, 3.2vw, 38px);
  line-height: 1.45;
  white-space: pre-line;
}
</style>
