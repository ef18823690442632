<script setup lang="ts">
import { computed, ref, TransitionGroup } from 'vue'
import type { DrawnHand } from '../../live/drawn'
import { clock } from '../../ui/format'
import KeyCap from '../../ui/KeyCap.vue'

const props = defineProps<{
  hands: readonly DrawnHand[]
  nameOf: (student: string) => string
  now: number
  canCall: boolean
  nextKey: string
  isGone: (hand: DrawnHand) => boolean
}>()
const emit = defineEmits<{ call: []; callOne: [student: string]; setDown: [...students: string[]]; stranger: [] }>()
// A long line is read from its head; the rest is one press away.
const longest = 8
const all = ref(false)
const shown = computed(() => (all.value ? props.hands : props.hands.slice(0, longest)))
// Hands that move up are shown moving; in a crowd nobody could follow, and it would cost a layout for each.
const list = computed(() =>
  props.hands.length > longest ? { is: 'ol', as: {} } : { is: TransitionGroup, as: { tag: 'ol', name: 'line' } },
)
const next = computed(() => props.hands.find((h) => !props.isGone(h)))
const name = (hand: DrawnHand) => hand.stranger ?? props.nameOf(hand.student)
</script>

<template>
  <section aria-label="Hand line">
    <div class="flex items-baseline justify-between border-b-[1.5px] border-ink pb-0.5">
      <h2 class="font-semibold">Hands</h2>
      <button
        v-if="hands.length > 1 && canCall"
        class="quiet all-down ml-auto mr-3 text-small text-ink-soft"
        @click="emit('setDown', ...hands.filter((h) => !h.stranger).map((h) => h.student))"
      >
        all <span class="sr-only">hands</span> down
      </button>
      <button v-if="hands.length && canCall" class="text-small text-ink-soft" @click="emit('call')">
        call next <KeyCap :k="nextKey" />
      </button>
      <span v-else-if="!hands.length" class="text-small text-ink-soft">nobody waits</span>
    </div>
    <component :is="list.is" v-bind="list.as">
      <li
        v-for="(hand, i) in shown"
        :key="hand.student"
        class="hand"
        :class="{ first: hand === next, gone: isGone(hand) }"
      >
        <span class="place">{{ i + 1 }}</span>
        <button
          class="name"
          :disabled="!canCall"
          :aria-label="hand.stranger ? `Who is ${hand.stranger}?` : `Call ${name(hand)}`"
          @click="hand.stranger ? emit('stranger') : emit('callOne', hand.student)"
        >
          <i v-if="hand.lapsed || hand.stranger"
            ><bdi>{{ name(hand) }}</bdi></i
          ><template v-else>{{ name(hand) }}</template>
        </button>
        <button
          v-if="canCall && !hand.stranger"
          class="down quiet"
          :aria-label="`Set down the hand of ${name(hand)}`"
          @click="emit('setDown', hand.student)"
        >
          set down
        </button>
        <span class="wait"
          ><i v-if="isGone(hand)">gone </i><i v-else-if="hand.lapsed">lapsed </i><i v-else-if="hand.ready">ready </i
          ><i v-else-if="hand.stranger">who? </i>{{ clock(now - hand.raisedAt) }}</span
        >
      </li>
    </component>
    <p v-if="hands.length > longest" class="text-right text-small">
      <button class="quiet text-ink-soft" :aria-expanded="all" @click="all = !all">
        {{ all ? 'only the first' : `and ${hands.length - longest} more` }}
      </button>
    </p>
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
  min-width: 0.9em;
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
.gone .name {
  font-weight: 400;
  color: var(--ink-soft);
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
@media (min-width: 561px) and (max-width: 900px) {
  .all-down {
    display: none;
  }
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
