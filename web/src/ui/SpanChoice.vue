<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Schemas } from '../api/client'

/** Days whose lessons are looked at: all of them, a term of the school, or from one day to another. */
interface Days {
  from?: string | undefined
  to?: string | undefined
}
const props = defineProps<{ terms: Schemas['TaughtTerm'][] } & Days>()
const emit = defineEmits<{ ask: [days: Days] }>()

const days = ref(false)
const term = computed(() =>
  days.value
    ? 'days'
    : (props.terms.find((t) => t.firstDay === props.from && t.lastDay === props.to)?.id ??
      (props.from || props.to ? 'days' : 'all')),
)
function chooseTerm(id: string) {
  days.value = id === 'days'
  const chosen = props.terms.find((t) => t.id === id)
  if (!days.value) emit('ask', { from: chosen?.firstDay, to: chosen?.lastDay })
}
const value = (event: Event) => (event.target as HTMLInputElement | HTMLSelectElement).value
</script>

<template>
  <label
    >lessons of
    <select class="field !w-auto" :value="term" @change="chooseTerm(value($event))">
      <option value="all">all days</option>
      <option v-for="t in terms" :key="t.id" :value="t.id">{{ t.name }}</option>
      <option value="days">some days…</option>
    </select></label
  >
  <template v-if="term === 'days'">
    <label
      >from
      <input
        class="field !w-auto"
        type="date"
        :value="from"
        @change="emit('ask', { from: value($event) || undefined, to })"
    /></label>
    <label
      >to
      <input
        class="field !w-auto"
        type="date"
        :value="to"
        @change="emit('ask', { from, to: value($event) || undefined })"
    /></label>
  </template>
</template>
