<script setup lang="ts">
import { computed } from 'vue'
import { keyName } from '../../ui/keyName'
import type { LoggedAct } from '../../live/acts'

/** Every act in one line, each with its key: one press logs it. */
const props = defineProps<{
  acts: readonly LoggedAct[]
  compact?: boolean
  /** What lies on digits means something else just now: those are for the pointer. */
  digitsMeanElse?: boolean
}>()
const hasKey = (act: LoggedAct) => !(props.digitsMeanElse && /\d/.test(act.key))
const shown = computed(() => (props.compact ? props.acts.filter((a) => !a.rare) : props.acts))
const emit = defineEmits<{ act: [act: LoggedAct] }>()
const pens: Record<LoggedAct['pen'], string> = {
  attendance: 'text-pen-attendance',
  speaking: 'text-pen-speaking',
  chat: 'text-pen-chat',
  nods: 'text-pen-nods',
}
const short: Record<string, string> = {
  partial: 'part',
  couldNot: 'can’t',
  question: 'asks',
  answer: 'reply',
}
// Of a reason the word that says most: with the default reasons "someone" and "kept" would not.
const reasons: Record<string, string> = { 'helped someone': 'helped', 'kept going': 'going', 'on time': 'time' }
const brief = (act: LoggedAct) =>
  act.pen === 'nods' ? (reasons[act.label] ?? act.label.split(' ')[0]!.slice(0, 9)) : (short[act.name] ?? act.label)
/** The whole word, behind the one that is seen where that is another. */
const spoken = (act: LoggedAct) => {
  const seen = props.compact ? brief(act) : act.label
  const whole = act.pen === 'nods' ? `nod, ${act.label}` : act.label
  return whole.includes(seen) ? whole : `${seen}, ${whole}`
}
</script>

<template>
  <span class="strip" role="group">
    <button
      v-for="act in shown"
      :key="act.name"
      class="act"
      :class="pens[act.pen]"
      :aria-label="spoken(act)"
      @click.stop="emit('act', act)"
    >
      {{ compact ? brief(act) : act.label }}<kbd v-if="hasKey(act)" :data-key="keyName(act.key)" aria-hidden="true" />
    </button>
  </span>
</template>

<style scoped>
kbd::after {
  content: attr(data-key);
}
.strip {
  display: flex;
  align-items: center;
  white-space: nowrap;
}
.act {
  min-width: 24px;
  min-height: 24px;
  padding: 0 3px;
  font-size: 0.78rem;
  line-height: 1;
  border-bottom: 1.5px solid transparent;
}
.act:hover {
  border-color: currentcolor;
  background: var(--paper-deep);
}
kbd {
  margin-left: 2px;
  font-family: inherit;
  font-size: 0.85em;
  font-weight: 750;
}
</style>
