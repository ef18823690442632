<script setup lang="ts">
import { Dialog, DialogDescription, DialogPanel, DialogTitle } from '@headlessui/vue'
import { count } from '../../ui/format'

/** Ending the lesson is the one act that is asked about: nothing can be tapped after it. */
defineProps<{ open: boolean; number: number; waiting: number }>()
const emit = defineEmits<{ end: []; close: [] }>()
</script>

<template>
  <Dialog :open="open" class="relative z-10" @close="emit('close')">
    <div class="fixed inset-0 bg-paper opacity-80" aria-hidden="true" />
    <div class="fixed inset-0 flex items-center justify-center p-4">
      <DialogPanel class="w-full max-w-md border-2 border-ink bg-paper p-6">
        <DialogTitle class="text-head font-bold">End lesson {{ number }}</DialogTitle>
        <DialogDescription class="mt-2 text-ink-soft">
          Nothing more can be tapped after that; files, names and the register come next.
          <template v-if="waiting > 0">
            {{ count(waiting, 'entry', 'entries') }} still in pencil go out first.</template
          >
        </DialogDescription>
        <div class="mt-5 flex gap-4">
          <button class="press-first" @click="emit('end')">End the lesson</button>
          <button class="press" @click="emit('close')">Go on teaching</button>
        </div>
      </DialogPanel>
    </div>
  </Dialog>
</template>
