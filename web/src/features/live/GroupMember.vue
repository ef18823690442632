<script setup lang="ts">
import type { DrawnRow } from '../../live/drawn'
import KeyCap from '../../ui/KeyCap.vue'
import TallyStrokes from '../../ui/TallyStrokes.vue'

/** A member of a group, or somebody who is in none: to choose, and what was seen of them in groups. */
defineProps<{ student: string; row?: DrawnRow; chosen: boolean; here: boolean }>()
const emit = defineEmits<{ press: [] }>()
</script>

<template>
  <li class="member" :data-student="student" :class="{ chosen, away: !here }">
    <button class="who" :aria-pressed="chosen" @click="emit('press')">
      <KeyCap class="text-ink-soft" :k="row?.key ?? ''" /> {{ row?.shortName ?? 'somebody' }}
    </button>
    <TallyStrokes v-if="row?.group.length" :strokes="row.group" pen="group" label="seen in groups" />
    <slot />
  </li>
</template>

<style scoped>
.member {
  display: flex;
  align-items: baseline;
  gap: 8px;
  min-height: 27px;
  border-bottom: 1px solid var(--rule);
  cursor: grab;
}
.member.chosen {
  background: var(--paper-deep);
  box-shadow: inset 3px 0 0 var(--ink);
}
.member.away .who {
  font-style: italic;
  color: var(--ink-soft);
}
.who {
  flex: 1;
  min-width: 0;
  min-height: 24px;
  overflow: hidden;
  text-align: start;
  text-overflow: ellipsis;
  white-space: nowrap;
  padding-left: 6px;
}
:slotted(.word) {
  opacity: 0;
}
.member:hover :slotted(.word),
:slotted(.word:focus-visible) {
  opacity: 1;
}
@media (hover: none) {
  :slotted(.word) {
    opacity: 1;
  }
}
</style>
