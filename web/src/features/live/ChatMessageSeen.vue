<script setup lang="ts">
import { hour } from '../../ui/format'
import KeyCap from '../../ui/KeyCap.vue'
import type { Act } from '../../live/outbox'
import { isOpen, kinds, labelOf, type Kind, type Message } from './chatKinds'

/** The message that is looked at, and what can become of it. */
defineProps<{ m: Message; others: readonly Message[]; canNote: boolean; canPause: boolean }>()
const emit = defineEmits<{ sort: [kind: Kind]; settle: [act: Act]; show: [withoutName: boolean]; pause: [] }>()
</script>

<template>
  <aside class="one" tabindex="0" aria-label="The message looked at">
    <p class="text-lead leading-snug">
      <bdi>{{ m.text }}</bdi>
    </p>
    <p class="text-small text-ink-soft">
      <b class="text-ink">{{ m.who }}</b>, {{ hour(m.at) }}
    </p>
    <p v-if="!m.student" class="text-small italic">This name belongs to no student yet, so it counts for nobody.</p>
    <div v-if="canNote" class="choices mt-2">
      <button v-if="canPause" class="choice proposed" @click="emit('pause')">
        <span
          >cannot speak today<i class="text-ink-soft"> probably, <KeyCap k="Enter" /></i
        ></span>
        <KeyCap k="8" />
      </button>
      <button
        v-for="k in kinds"
        :key="k.kind"
        class="choice"
        :class="{ proposed: !canPause && !m.sorted && m.proposal === k.kind }"
        @click="emit('sort', k.kind)"
      >
        <span
          >{{ k.label
          }}<i v-if="!canPause && !m.sorted && m.proposal === k.kind" class="text-ink-soft">
            probably, <KeyCap k="Enter" /></i
        ></span>
        <KeyCap :k="k.key" />
      </button>
      <button v-if="isOpen(m)" class="choice" @click="emit('settle', { type: 'chatDealtWith', message: m.entry })">
        <span>answered</span><KeyCap k="0" />
      </button>
      <template v-if="m.fromPage && !m.shown">
        <button class="choice" @click="emit('show', false)"><span>show to the class</span><KeyCap k="6" /></button>
        <button class="choice" @click="emit('show', true)"><span>show without the name</span><KeyCap k="7" /></button>
      </template>
      <button class="choice" @click="emit('settle', { type: 'chatHidden', message: m.entry })">
        <span>hide</span><KeyCap k="Delete" />
      </button>
    </div>
    <template v-if="others.length">
      <p class="mt-3 border-b-[1.5px] border-ink text-small font-semibold">Also from {{ m.who }}</p>
      <p v-for="other in others.slice(-8)" :key="other.entry" class="border-b border-rule py-1 text-small">
        <span class="text-ink-soft">{{ hour(other.at) }}</span> <bdi>{{ other.text }}</bdi>
        <i class="text-ink-soft"> {{ other.sorted ? labelOf(other.kind) : '' }}</i>
      </p>
    </template>
  </aside>
</template>

<style scoped>
.one {
  overflow-y: auto;
  border-left: 1px solid var(--rule);
  padding: 8px 4px 8px 16px;
  overflow-wrap: anywhere;
}
.choice {
  display: flex;
  width: 100%;
  justify-content: space-between;
  align-items: baseline;
  min-height: 30px;
  border-bottom: 1px solid var(--rule);
}
.choice:hover {
  background: var(--paper-deep);
}
.choice.proposed {
  font-weight: 650;
}
@media (max-width: 900px) {
  .one {
    grid-row: 1;
    border-left: 0;
    padding-left: 4px;
    max-height: 42dvh;
  }
  .choices {
    columns: 2;
  }
}
</style>
