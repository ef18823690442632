<script setup lang="ts">
import { clock } from '../../ui/format'
import KeyCap from '../../ui/KeyCap.vue'

defineProps<{
  hands: { student: string; raisedAt: number; lapsed: boolean; pencil: boolean }[]
  nameOf: (student: string) => string
  now: number
  canCall: boolean
}>()
const emit = defineEmits<{ call: []; callOne: [student: string]; setDown: [student: string] }>()
</script>

<template>
  <section aria-label="Hand line">
    <div class="flex items-baseline justify-between border-b-[1.5px] border-ink pb-0.5">
      <h2 class="font-semibold">Hands</h2>
      <button v-if="hands.length && canCall" class="text-small text-ink-soft" @click="emit('call')">
        call next <KeyCap k="Enter" />
      </button>
      <span v-else class="text-small text-ink-soft">nobody waits</span>
    </div>
    <TransitionGroup tag="ol" name="line">
      <li v-for="(hand, i) in hands" :key="hand.student" class="hand" :class="{ first: i === 0 }">
        <span class="place">{{ i + 1 }}</span>
        <button
          class="name"
          :disabled="!canCall"
          :aria-label="`Call ${nameOf(hand.student)}`"
          @click="emit('callOne', hand.student)"
        >
          <i v-if="hand.lapsed">{{ nameOf(hand.student) }}</i><template v-else>{{ nameOf(hand.student) }}</template>
        </button>
        <button
          v-if="canCall"
          class="down quiet"
          :aria-label="`Set down the hand of ${nameOf(hand.student)}`"
          @click="emit('setDown', hand.student)"
        >
          set down
        </button>
        <span class="wait"><i v-if="hand.lapsed">lapsed </i>{{ clock(now - hand.raisedAt) }}</span>
      </li>
    </TransitionGroup>
  </section>
</template>

<style scoped>
.hand {
  position: relative;
  display: flex;
  align-items: baseline;
  gap: 8px;
  min-height: 28px;
  padding: 3px 0 2px;
  border-bottom: 1px solid var(--rule);
}
.place {
  font-weight: 700;
  width: 0.9em;
}
.name {
  flex: 1;
  min-width: 0;
  text-align: start;
  font-weight: 600;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.first .name {
  font-size: var(--text-lead);
}
.wait {
  color: var(--ink-soft);
}
.first .wait {
  color: var(--ink);
  font-size: var(--text-lead);
}
/* Over the waiting time, and only when asked for: setting a hand down is rare, reading the time is not. */
.down {
  position: absolute;
  right: 0;
  background: var(--paper);
  padding-left: 8px;
  font-size: var(--text-small);
  color: var(--ink-soft);
  opacity: 0;
}
.hand:hover .down,
.down:focus-visible {
  opacity: 1;
}
@media (hover: none) {
  .down {
    position: static;
    opacity: 1;
  }
}
.line-move,
.line-leave-active {
  transition: transform 140ms;
}
.line-leave-active {
  display: none;
}
</style>
