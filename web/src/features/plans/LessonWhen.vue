<script setup lang="ts">
import type { Schemas } from '../../api/client'
import { hour, longDay } from '../../ui/format'

/** Which lesson it is, and when. */
defineProps<{ lesson: Schemas['LessonLine'] }>()
</script>

<template>
  <p class="text-ink-soft">
    <RouterLink class="hover:underline" :to="`/classes/${lesson.classId}`">{{ lesson.className }}</RouterLink>{{
      lesson.number ? `, lesson ${lesson.number}` : ''
    }}
    · {{ longDay(lesson.plannedStart) }}, {{ hour(lesson.plannedStart) }} to {{ hour(lesson.plannedEnd) }} ·
    {{ lesson.dropIn ? 'drop-in' : 'required' }}
    <i v-if="lesson.cancelled">· cancelled</i>
    <slot />
  </p>
</template>
