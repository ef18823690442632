<script setup lang="ts">
import KeyCap from '../../ui/KeyCap.vue'
import { useTeaching } from './teaching'

/** A pass over the whole class, at the foot: how many are in it, and how it is done. */
defineProps<{ id: string }>()
const { pass, out, rows, finishPass } = useTeaching()
</script>

<template>
  <div v-if="pass" role="status">
    <span>
      <template v-if="pass.kind === 'rollCall'"
        ><b>Roll call.</b> {{ rows.length - out.size }} of {{ rows.length }} here, except those you take out: their
        letter, or a press.</template
      >
      <template v-else
        ><b>{{ pass.statement }}</b> {{ rows.length - out.size }} answered, except those you take out.</template
      >
    </span>
    <button class="press-first !min-h-7 shrink-0 !py-0.5" @click="finishPass">Done <KeyCap k="Enter" /></button>
    <button class="quiet shrink-0" @click="pass = undefined">not now <KeyCap k="Esc" /></button>
    <a v-if="pass.kind === 'rollCall'" class="quiet shrink-0" :href="`/api/lessons/${id}/roll-call.csv`"
      >who is here, as a file</a
    >
  </div>
</template>
