<script setup lang="ts">
import { computed } from 'vue'
import type { Rules } from './rules'

/** Until when registers are due, in which codes the school wants them, and where they go by mail. */
const rules = defineModel<Rules['register']>({ required: true })
const two = (n: number) => String(n).padStart(2, '0')
const dueBy = computed({
  get: () => `${two(Math.floor((rules.value.dueByMinutes ?? 0) / 60))}:${two((rules.value.dueByMinutes ?? 0) % 60)}`,
  set: (time: string) => {
    const [h, m] = time.split(':').map(Number)
    if (h !== undefined && m !== undefined) rules.value.dueByMinutes = h * 60 + m
  },
})
const codes = [
  ['present', 'present'],
  ['late', 'late, with the minutes beside it'],
  ['absent', 'absent'],
  ['excused', 'excused, with the reason beside it'],
] as const
</script>

<template>
  <section aria-labelledby="register-rules">
    <h2 id="register-rules" class="rule-head">Register</h2>
    <p class="mt-2 flex flex-wrap items-baseline gap-3">
      <label
        >Due on the day of the lesson by
        <input v-model="dueBy" type="time" class="field ml-2 inline-block !w-32" required
      /></label>
    </p>
    <p class="mt-2 flex flex-wrap gap-x-6 gap-y-2">
      <label v-for="[code, label] in codes" :key="code" class="text-small text-ink-soft"
        >{{ label }}<input v-model="rules[code]" class="field block !w-24 text-base text-ink" maxlength="12"
      /></label>
    </p>
    <label class="mt-2 block text-small text-ink-soft"
      >By mail to, if the school has no register desk<input
        v-model="rules.mailTo"
        type="email"
        class="field text-base text-ink"
        maxlength="120"
        placeholder="office@skerrysound.example"
    /></label>
  </section>
</template>
