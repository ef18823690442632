<script setup lang="ts">
import { ref } from 'vue'
import type { Schemas } from '../../api/client'
import type { Done } from '../../ui/done'
import { dayName } from '../../ui/format'
import LessonEditor from './LessonEditor.vue'
import WeekLesson from './WeekLesson.vue'
import type { Hours } from './weekScale'

/** A day of the week: its lessons where they lie, and the way to plan one more. */
defineProps<{
  day: Schemas['CalendarDay']
  today: string
  hours: Hours
  classes: readonly Schemas['ClassLine'][]
}>()
const emit = defineEmits<{ done: [what: Done] }>()
/** The class that a lesson is being planned for. */
const adding = ref<string>()

function planned(what: Done) {
  adding.value = undefined
  emit('done', what)
}
</script>

<template>
  <section class="day" :aria-label="dayName(day.day)">
    <h2 class="name">
      <span :class="{ marked: day.day === today }">{{ dayName(day.day, { weekday: 'long' }) }}</span>
      <span class="block text-small font-normal text-ink-soft">{{
        dayName(day.day, { day: 'numeric', month: 'short' })
      }}</span>
    </h2>
    <div class="line">
      <p v-if="day.off" class="off">{{ day.off }}</p>
      <p v-if="!day.lessons.length" class="sr-only">No lessons.</p>
      <WeekLesson v-for="lesson in day.lessons" :key="lesson.id" :lesson="lesson" :day="day.lessons" :hours="hours" />
    </div>
    <button
      v-if="classes.length"
      class="add quiet text-small"
      :aria-label="`Plan a lesson on ${dayName(day.day)}`"
      @click="adding = classes[0]!.id"
    >
      plan
    </button>
    <div v-if="adding" class="adding">
      <label class="block max-w-[24rem] text-small text-ink-soft"
        >Class<select v-model="adding" class="field text-base text-ink">
          <option v-for="c in classes" :key="c.id" :value="c.id">{{ c.name }}</option>
        </select></label
      >
      <LessonEditor :class-id="adding" :day="day.day" @done="planned" @close="adding = undefined" />
    </div>
  </section>
</template>

<style scoped>
.day {
  display: grid;
  grid-template-columns: 112px minmax(0, 1fr) 56px;
  align-items: center;
  border-bottom: 1px solid var(--rule);
  min-height: 62px;
}
.name {
  font-weight: 650;
  line-height: 1.2;
}
.line {
  position: relative;
  height: 60px;
}
.off {
  position: absolute;
  inset: 0;
  display: flex;
  align-items: center;
  padding-left: 10px;
  font-style: italic;
  color: var(--ink-soft);
  background: var(--paper-deep);
}
.add {
  justify-self: end;
}
.adding {
  grid-column: 1 / -1;
  padding-bottom: 8px;
}
@media (max-width: 700px) {
  .day {
    grid-template-columns: 80px minmax(0, 1fr) 40px;
    padding: 6px 0;
  }
  .line {
    height: auto;
  }
  .off {
    position: static;
    padding: 4px 8px;
  }
}
</style>
