<script setup lang="ts">
import { computed } from 'vue'
import { hour } from '../../ui/format'
import { labelOf, type Message } from './chatKinds'

/** A message in the list: when, who, what, and the kind it is or probably is. */
const props = defineProps<{ m: Message; here: boolean }>()
const kind = computed(() => {
  const { m } = props
  if (m.repeat) return ''
  if (m.sorted) return labelOf(m.kind)
  if (m.cannotSpeak) return 'cannot speak?'
  return m.proposal === 'unsorted' ? '' : `${labelOf(m.proposal)}?`
})
</script>

<template>
  <li class="message" :class="{ here }" :aria-current="here ? 'true' : undefined">
    <span class="text-ink-soft">{{ hour(m.at) }}</span>
    <b class="who truncate"
      ><bdi>{{ m.who }}</bdi></b
    >
    <span class="min-w-0"
      ><bdi>{{ m.text }}</bdi> <i v-if="m.shown" class="text-small">from a student page, shown to the class</i
      ><i v-else-if="m.private" class="text-small">{{
        m.fromPage ? 'from a student page, to you alone' : 'to you alone'
      }}</i>
      <i v-if="m.repeat" class="text-small text-ink-soft">again, not counted</i></span
    >
    <span class="kind" :class="m.sorted ? 'sorted' : 'proposed'">{{ kind }}</span>
  </li>
</template>

<style scoped>
.message {
  display: grid;
  grid-template-columns: 44px 130px minmax(0, 1fr) 96px;
  gap: 10px;
  align-items: baseline;
  min-height: 30px;
  padding: 4px 6px 3px;
  border-bottom: 1px solid var(--rule);
  cursor: pointer;
  overflow-wrap: anywhere;
}
.here {
  background: var(--paper-deep);
  box-shadow: inset 3px 0 0 var(--ink);
}
.kind {
  text-align: right;
  font-size: var(--text-small);
}
.kind.sorted {
  font-weight: 650;
}
.kind.proposed {
  font-style: italic;
  color: var(--ink-soft);
}
@container chat (max-width: 780px) {
  .message {
    grid-template-columns: 46px 84px minmax(0, 1fr) 62px;
    gap: 6px;
  }
}
</style>
