<script setup lang="ts">
import KeyCap from '../../ui/KeyCap.vue'
import type { LoggedAct } from './acts'

defineProps<{ acts: readonly LoggedAct[] }>()

const emit = defineEmits<{ close: [] }>()
const others: [string, string][] = [
  ['a letter', 'the student with that letter; again for the next who shares it'],
  ['Shift + letter', 'one student more, or one fewer'],
  ['Home', 'everyone; then Shift + letter takes one out'],
  ['space', 'find by name'],
  ['Enter', 'call the next in line'],
  ['⌫', 'undo, any number of times'],
  ['Esc', 'choose nobody'],
]
</script>

<template>
  <section aria-label="All keys" class="text-small">
    <div class="flex items-baseline justify-between border-b-[1.5px] border-ink pb-0.5">
      <h2 class="text-base font-semibold">All keys</h2>
      <button class="quiet" @click="emit('close')">put away <KeyCap k="?" /></button>
    </div>
    <dl>
      <div v-for="act in acts" :key="act.name" class="flex justify-between border-b border-rule py-px">
        <dt>{{ act.pen === 'nods' ? `nod, ${act.label}` : act.pen === 'chat' ? `chat, ${act.label}` : act.label }}</dt>
        <dd><KeyCap :k="act.key" /></dd>
      </div>
      <div v-for="[key, what] in others" :key="key" class="flex justify-between gap-3 border-b border-rule py-px">
        <dt class="text-ink-soft">{{ what }}</dt>
        <dd class="shrink-0 font-semibold">{{ key }}</dd>
      </div>
    </dl>
  </section>
</template>
