<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Schemas } from '../../api/client'
import type { DrawnReminder } from '../../live/drawn'

/**
 * What the teacher wanted to be reminded of: from an hour before the start, and in the last ten minutes. Never in the way; a list that is seen
 * to is one line.
 */
const props = defineProps<{
  head: Schemas['LiveHead']
  beforeStart: readonly DrawnReminder[]
  beforeEnd: readonly DrawnReminder[]
  now: number
}>()
const emit = defineEmits<{ tick: [reminder: string]; untick: [entry: string] }>()

const near = 10 * 60_000
const opened = ref<string>()
const lists = computed(() => {
  const { head, now } = props
  const begun = head.startedAt ?? now
  const hour = 60 * 60_000
  const starting =
    head.stage === 'planned' ? now > head.plannedStart - hour : head.stage === 'live' && now < begun + near
  const ending = head.stage === 'live' && now > head.plannedEnd - near
  return [
    // What was not seen to stays, however late it is.
    {
      name: 'Before the start',
      shown: starting || (head.stage === 'live' && props.beforeStart.some((r) => !r.ticked)),
      reminders: props.beforeStart,
    },
    { name: 'Before the end', shown: ending, reminders: props.beforeEnd },
  ].filter((l) => l.shown && l.reminders.length && (head.stage === 'planned' || head.stage === 'live'))
})
const isDone = (list: { reminders: readonly DrawnReminder[] }) => list.reminders.every((r) => r.ticked)
</script>

<template>
  <section v-for="list in lists" :key="list.name" class="mb-3" :aria-label="list.name">
    <h2 class="flex items-baseline justify-between border-b-[1.5px] border-ink pb-0.5 font-semibold">
      {{ list.name }}
      <button
        v-if="isDone(list)"
        class="quiet text-small font-normal text-ink-soft"
        :aria-expanded="opened === list.name"
        @click="opened = opened === list.name ? undefined : list.name"
      >
        all done
      </button>
    </h2>
    <template v-if="!isDone(list) || opened === list.name">
      <label
        v-for="reminder in list.reminders"
        :key="reminder.text"
        class="line"
        :class="{ done: reminder.ticked, pencil: reminder.pencil }"
      >
        <input
          type="checkbox"
          class="size-4 shrink-0 self-center"
          :checked="!!reminder.ticked"
          @change="reminder.ticked ? emit('untick', reminder.ticked) : emit('tick', reminder.text)"
        />
        <span>{{ reminder.text }}</span>
      </label>
    </template>
  </section>
</template>

<style scoped>
.line {
  display: flex;
  gap: 8px;
  align-items: baseline;
  border-bottom: 1px solid var(--rule);
  padding: 2px 0 1px;
  font-size: var(--text-small);
  cursor: pointer;
}
.done {
  color: var(--ink-soft);
  text-decoration: line-through;
}
.pencil {
  font-style: italic;
}
</style>
