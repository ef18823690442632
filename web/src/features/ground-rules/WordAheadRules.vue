<script setup lang="ts">
import type { Rules } from './rules'

/** Whether a message goes out before each lesson, when, and what it says. */
const word = defineModel<Rules['wordAhead']>({ required: true })
</script>

<template>
  <section aria-labelledby="word">
    <h2 id="word" class="rule-head">Word ahead</h2>
    <p class="mt-2 flex flex-wrap items-baseline gap-3">
      <label class="flex items-center gap-2"
        ><input v-model="word.on" type="checkbox" class="size-5" /> A message goes to the class</label
      >
      <input
        v-model.number="word.minutesBefore"
        class="field !w-16 text-end"
        type="number"
        min="1"
        max="1440"
        aria-label="Minutes before the lesson"
      />
      min before each lesson.
    </p>
    <label class="mt-2 block text-small text-ink-soft"
      >Subject<input v-model="word.subject" class="field text-base text-ink" maxlength="200"
    /></label>
    <label class="mt-2 block text-small text-ink-soft"
      >Message<textarea v-model="word.text" class="field text-base text-ink" rows="7" />
    </label>
    <p class="text-small text-ink-soft">
      In braces: {name}, {class}, {title}, {day}, {time}, {link}, {teacher}. The plan of a lesson shows how it reads for
      one student.
    </p>
  </section>
</template>
