<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '../../api/client'
import { clock, hour, minutes } from '../../ui/format'

/** The lesson that is on, or the next one of the day, and the way to it. */
const props = defineProps<{ lesson: Schemas['LessonLine']; now: number }>()
const isLive = computed(() => props.lesson.stage === 'live')
const until = computed(() => props.lesson.plannedStart - props.now)
</script>

<template>
  <p class="flex flex-wrap items-center gap-x-3 gap-y-2 text-lead">
    <span v-if="isLive"
      >Lesson {{ lesson.number }} of {{ lesson.className }} is <span class="marked">live now</span>.</span
    >
    <span v-else
      >Next, at {{ hour(lesson.plannedStart)
      }}<template v-if="until > 0"
        >, in {{ until < 3_600_000 ? minutes(until) : `${clock(until).split(':')[0]} h` }}</template
      >: lesson {{ lesson.number }} of {{ lesson.className }}.</span
    >
    <RouterLink class="press-first inline-block" :to="`/lessons/${lesson.id}/live`">{{
      isLive ? 'Go to it' : 'Open it'
    }}</RouterLink>
    <a v-if="lesson.meetingLink" class="press" :href="lesson.meetingLink" target="_blank" rel="noopener noreferrer"
      >Open the meeting</a
    >
    <RouterLink v-if="!isLive" class="press" :to="`/lessons/${lesson.id}/plan`">Its plan</RouterLink>
  </p>
</template>
