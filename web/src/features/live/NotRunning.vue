<script setup lang="ts">
import type { Head } from '../../live/drawn'
import Notice from '../../ui/Notice.vue'

/** What can be done with a lesson that is not going on: begin it, resume it, settle it. */
defineProps<{ id: string; head: Head }>()
const emit = defineEmits<{ start: []; resume: [] }>()
</script>

<template>
  <div class="note">
    <Notice>
      <template v-if="head.stage === 'planned'">
        This lesson has not begun.
        <a v-if="head.meetingLink" class="press ml-3" :href="head.meetingLink" target="_blank" rel="noopener noreferrer"
          >Open the meeting</a
        >
        <RouterLink class="press ml-3" :to="`/lessons/${id}/plan`">Its plan</RouterLink>
        <button class="press-first ml-3" @click="emit('start')">Start it now</button>
      </template>
      <template v-else-if="head.stage === 'ended'">
        This lesson has ended.
        <button class="press ml-3" @click="emit('resume')">Resume it</button>
        <RouterLink class="press-first ml-3 inline-block" :to="`/lessons/${id}/settle`">Settle it</RouterLink>
      </template>
      <template v-else>
        This lesson is settled: its register is confirmed.
        <RouterLink class="press ml-3 inline-block" :to="`/lessons/${id}/settle`">See the register</RouterLink>
      </template>
    </Notice>
  </div>
</template>

<style scoped>
.note {
  grid-area: note;
  border-top: 1.5px solid var(--ink);
  padding: 8px 16px;
}
/* A narrow window: always in reach above the foot. */
@media (max-width: 560px) {
  .note {
    order: 3;
  }
}
</style>
