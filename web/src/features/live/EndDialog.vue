<script setup lang="ts">
import { computed, ref } from 'vue'
import { Dialog, DialogDescription, DialogPanel, DialogTitle } from '@headlessui/vue'
import { useLive } from '../../live/lesson'
import { count } from '../../ui/format'
import { leftOver } from './leftOver'
import type { Doing } from './teaching'

/** Ending the lesson is the one act that is asked about: nothing can be tapped after it. So no key that teaches ends it. */
defineProps<{ open: boolean; number: number; waiting: number }>()
const emit = defineEmits<{ end: []; close: []; run: [command: Doing] }>()
const { head, drawn } = useLive()

const goOn = ref<HTMLButtonElement>()
const left = computed(() => (head.value && drawn.value ? leftOver(drawn.value, head.value) : []))
function see(opens: Doing | null) {
  emit('close')
  if (opens) emit('run', opens)
}
</script>

<template>
  <Dialog :open="open" class="relative z-10" :initial-focus="goOn" @close="emit('close')">
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
        <section v-if="left.length" class="mt-4" aria-labelledby="still-to-do">
          <h2 id="still-to-do" class="text-small text-ink-soft">Still to do</h2>
          <ul class="mt-1">
            <li
              v-for="line in left"
              :key="line.text"
              class="flex items-baseline justify-between gap-4 border-b border-rule py-1"
            >
              <span
                ><bdi>{{ line.text }}</bdi></span
              >
              <button
                class="quiet shrink-0"
                :aria-label="`${line.opens ? 'Open' : 'Go back'}: ${line.text}`"
                @click="see(line.opens)"
              >
                {{ line.opens ? 'Open' : 'Go back' }}
              </button>
            </li>
          </ul>
        </section>
        <div class="mt-5 flex gap-4">
          <button ref="goOn" class="press-first" @click="emit('close')">Go on teaching</button>
          <button class="press" @click="emit('end')">End the lesson</button>
        </div>
      </DialogPanel>
    </div>
  </Dialog>
</template>
