<script setup lang="ts">
import { computed } from 'vue'
import { hour } from '../../ui/format'

/** The lesson as one ruler with its stages marked off along it; what runs over lies beyond the last mark, hatched. */
const props = defineProps<{
  stages: readonly { id: string; name: string; minutes: number }[]
  start: number
  minutes: number
}>()
const planned = computed(() => props.stages.reduce((sum, s) => sum + s.minutes, 0))
const whole = computed(() => Math.max(props.minutes, planned.value, 1))
const parts = computed(() => {
  let at = 0
  return props.stages.map((stage) => {
    const from = at
    at += stage.minutes
    return {
      ...stage,
      left: (from / whole.value) * 100,
      width: (stage.minutes / whole.value) * 100,
      at: props.start + from * 60_000,
    }
  })
})
const end = computed(() => (props.minutes / whole.value) * 100)
const told = computed(() => parts.value.map((p) => `${hour(p.at)} ${p.name || 'a stage'}, ${p.minutes} min`).join('; '))
</script>

<template>
  <div class="ruler" role="img" :aria-label="told || 'no stages'">
    <span v-if="planned > minutes" class="over" :style="{ left: `${end}%` }" />
    <span v-for="part in parts" :key="part.id" class="part" :style="{ left: `${part.left}%`, width: `${part.width}%` }">
      <span class="at">{{ hour(part.at) }}</span>
      <span class="name">{{ part.name }}</span>
    </span>
    <span class="end" :style="{ left: `${end}%` }"
      ><span>{{ hour(start + minutes * 60_000) }}</span></span
    >
  </div>
</template>

<style scoped>
.ruler {
  position: relative;
  height: 46px;
  border-bottom: 2px solid var(--ink);
  margin-right: 42px;
}
.part {
  position: absolute;
  inset-block: 0;
  border-left: 1.5px solid var(--ink);
  padding-left: 6px;
  overflow: hidden;
  white-space: nowrap;
}
.at {
  display: block;
  font-size: 0.75rem;
  color: var(--ink-soft);
}
.name {
  font-weight: 650;
}
.end {
  position: absolute;
  inset-block: 0;
  border-left: 2.5px solid var(--ink);
  font-size: 0.75rem;
  padding-left: 5px;
  color: var(--ink-soft);
}
.over {
  position: absolute;
  inset: 0 0 0 auto;
  right: 0;
  background: repeating-linear-gradient(-45deg, transparent 0 5px, var(--rule) 5px 6.5px);
}
</style>
