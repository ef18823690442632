<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '../../api/client'
import { placeOf } from './kinds'

/** Sentences of a report. Each opens to what it rests on; its point is marked. */
const props = defineProps<{ says: Schemas['Sentence'][]; classId: string }>()
/** A number stays on one line with its sign or unit. */
const together = (text: string) => text.replace(/(\d) (?=%|min\b)/g, '$1\u00a0')
const parts = computed(() =>
  props.says.map((said) => {
    const s = { ...said, text: together(said.text), marked: said.marked && together(said.marked) }
    const at = s.marked ? s.text.indexOf(s.marked) : -1
    return at < 0
      ? { ...s, before: s.text, point: '', after: '' }
      : { ...s, before: s.text.slice(0, at), point: s.marked!, after: s.text.slice(at + s.marked!.length) }
  }),
)
</script>

<template>
  <p>
    <template v-for="(s, i) in parts" :key="i"
      ><component
        :is="s.opens ? 'RouterLink' : 'span'"
        :to="s.opens ? placeOf(classId, s.opens) : undefined"
        :class="{ says: s.opens, 'text-ink-soft': s.quiet }"
        ><bdi
          >{{ s.before }}<span v-if="s.point" class="marked">{{ s.point }}</span
          >{{ s.after }}</bdi
        ></component
      >{{ ' ' }}</template
    >
  </p>
</template>

<style scoped>
.says:hover {
  text-decoration: underline;
  text-decoration-color: var(--ink-soft);
  text-underline-offset: 4px;
}
</style>
