<script setup lang="ts">
import type { Schemas } from '../../api/client'
import TallyStrokes from '../../ui/TallyStrokes.vue'

/** Nods that the class sees for a moment: who, what for, and the one stroke that it is. */
defineProps<{ nods: readonly Schemas['BoardNods'][] }>()
const mostNames = 5
const whoOf = (names: readonly string[]) =>
  names.length > mostNames
    ? `${names.slice(0, mostNames).join(', ')} and ${names.length - mostNames} more`
    : names.join(', ')
const stroke = [{ key: 'nod', credit: 1, state: 'ink' as const }]
</script>

<template>
  <section class="nods" aria-label="Nods" aria-live="polite">
    <p v-for="(n, i) in nods" :key="i">
      <TallyStrokes :strokes="stroke" pen="nods" label="one stroke" :height="34" />
      <span
        ><b>{{ whoOf(n.who) }}</b> {{ n.reason }}</span
      >
    </p>
  </section>
</template>

<style scoped>
.nods {
  border-top: 3px solid var(--pen-nods);
  padding: 14px 32px;
  background: var(--paper);
  font-size: clamp(18px, 5.5cqh, 80px);
  line-height: 1.3;
}
.nods p {
  display: flex;
  gap: 14px;
  align-items: center;
}
.nods p:not(:last-child) {
  padding-bottom: 6px;
}
</style>
