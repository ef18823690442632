<script setup lang="ts">
import type { Rules } from './rules'

/** The signals that a class has agreed on: what each means, and how it looks. */
const signals = defineModel<Rules['signals']>({ required: true })
</script>

<template>
  <div v-for="(signal, i) in signals" :key="i" class="flex items-center gap-3">
    <input
      v-model="signal.meaning"
      class="field !w-28 font-semibold"
      maxlength="120"
      :aria-label="`Signal ${i + 1} means`"
    />
    <input v-model="signal.gesture" class="field" maxlength="120" :aria-label="`Signal ${i + 1} looks like`" />
    <button
      type="button"
      class="quiet text-small"
      :aria-label="`Take out the signal ${signal.meaning}`"
      @click="signals.splice(i, 1)"
    >
      out
    </button>
  </div>
  <button type="button" class="quiet mt-1" @click="signals.push({ meaning: '', gesture: '' })">Add a signal</button>
</template>
