<script setup lang="ts">
import type { Schemas } from '../../api/client'

/** What to remember around the lesson, as its ground rules say. */
defineProps<{ id: string; view: Pick<Schemas['PlanView'], 'beforeStart' | 'beforeEnd' | 'rulesDiffer'> }>()
</script>

<template>
  <section aria-labelledby="reminders">
    <h2 class="rule-head">
      <span id="reminders">To remember</span>
      <RouterLink class="quiet text-small font-normal" :to="`/lessons/${id}/rules`">{{
        view.rulesDiffer ? 'rules of this lesson' : 'change for this lesson'
      }}</RouterLink>
    </h2>
    <p class="mt-1">
      <span class="text-ink-soft">Before the start:</span> {{ view.beforeStart.join('; ') || 'nothing' }}.
    </p>
    <p class="mt-1"><span class="text-ink-soft">Before the end:</span> {{ view.beforeEnd.join('; ') || 'nothing' }}.</p>
  </section>
</template>
