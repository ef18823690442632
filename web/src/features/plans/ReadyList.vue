<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '../../api/client'

/** What a plan lacks, each leading to its place; then what is good to know. */
const props = defineProps<{ notes: readonly Schemas['ReadyNote'][] }>()
const missing = computed(() => props.notes.filter((n) => n.needed))
const good = computed(() => props.notes.filter((n) => !n.needed))
const places: Record<string, string> = {
  stages: 'stages',
  points: 'points',
  groups: 'groups',
  questions: 'questions',
  lesson: 'lesson',
  wordAhead: 'word-ahead',
}
</script>

<template>
  <section>
    <h2 class="rule-head">
      Is it ready?<span class="font-normal"
        ><span v-if="!missing.length" class="marked">yes</span
        ><template v-else>{{ missing.length }} missing</template></span
      >
    </h2>
    <ul>
      <li v-for="(note, i) in missing" :key="i" class="border-b border-rule py-1">
        <a class="font-semibold hover:underline" :href="`#${places[note.where]}`">{{ note.text }}</a>
      </li>
      <li v-for="(note, i) in good" :key="`g${i}`" class="border-b border-rule py-1 text-ink-soft italic">
        {{ note.text }}
      </li>
    </ul>
  </section>
</template>
