<script setup lang="ts">
import { useLive } from '../../live/lesson'

/** What was noted here and could not be stored, each with its reason, until it is put away. */
const { drawn, dismiss } = useLive()
</script>

<template>
  <section v-if="drawn?.refused.length" class="mt-4" aria-label="Not stored">
    <h2 class="border-b-[1.5px] border-ink pb-0.5 font-semibold">Not stored</h2>
    <div v-for="r in drawn.refused" :key="r.id" class="border-b border-rule py-1 text-small" role="alert">
      <b>{{ r.text }}.</b> {{ r.why }}
      <button class="quiet" @click="dismiss(r.id)">Put away</button>
    </div>
  </section>
</template>
