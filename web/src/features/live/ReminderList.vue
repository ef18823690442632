<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Schemas } from '../../api/client'
import type { DrawnReminder } from '../../live/drawn'
import { freeAfterDialog } from './keyboard'
import ReadAloud from './ReadAloud.vue'

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
const emit = defineEmits<{ tick: [reminder: string, readAloud: string | null]; untick: [entry: string] }>()

const near = 10 * 60_000
const opened = ref<string>()
const reading = ref<DrawnReminder>()
/** Opens the words large; the first time, that and when they were read is noted. */
function read(reminder: DrawnReminder) {
  reading.value = reminder
  if (!reminder.ticked) emit('tick', reminder.text, reminder.readAloud)
}
function done() {
  reading.value = undefined
  void freeAfterDialog()
}
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
      <p
        v-for="reminder in list.reminders"
        :key="reminder.text"
        class="line"
        :class="{ done: reminder.ticked, pencil: reminder.pencil }"
      >
        <label class="what">
          <input
            type="checkbox"
            class="size-4 shrink-0 self-center"
            :checked="!!reminder.ticked"
            @change="reminder.ticked ? emit('untick', reminder.ticked) : emit('tick', reminder.text, null)"
          />
          <span>{{ reminder.text }}</span>
        </label>
        <button
          v-if="reminder.readAloud"
          class="quiet shrink-0"
          :aria-label="`Read aloud: ${reminder.text}`"
          @click="read(reminder)"
        >
          Read aloud
        </button>
      </p>
    </template>
  </section>
  <ReadAloud :title="reading?.text" :words="reading?.readAloud ?? ''" @close="done" />
</template>

<style scoped>
.line,
.what {
  display: flex;
  gap: 8px;
  align-items: baseline;
}
.line {
  justify-content: space-between;
  border-bottom: 1px solid var(--rule);
  padding: 2px 0 1px;
  font-size: var(--text-small);
}
.what {
  cursor: pointer;
}
.done .what {
  color: var(--ink-soft);
  text-decoration: line-through;
}
.pencil {
  font-style: italic;
}
</style>
