<script setup lang="ts">
import { computed } from 'vue'
import { shownValue, writeInto, type RuleField, type Rules } from '../ground-rules/rules'

/** One setting of a scheme, in a narrow column: its value, what it was, and what it comes to. */
const rules = defineModel<Rules>({ required: true })
const props = defineProps<{ field: RuleField; before: Rules; example?: string }>()
const id = computed(() => `scheme-${props.field.rule}`)
const was = computed(() => {
  if (props.field.get(rules.value) === props.field.get(props.before)) return ''
  const value = shownValue(props.field, props.before)
  return `was ${props.field.choices?.find((c) => c.value === value)?.label ?? value}`
})
</script>

<template>
  <div class="border-b border-rule py-1 text-small">
    <p class="flex items-baseline gap-2">
      <label class="flex-1" :for="id">{{ field.label }}</label>
      <select
        v-if="field.choices"
        :id="id"
        class="field !w-40"
        :value="String(field.get(rules))"
        @change="writeInto(rules, field, $event)"
      >
        <option v-for="choice in field.choices" :key="String(choice.value)" :value="String(choice.value)">
          {{ choice.label }}
        </option>
      </select>
      <template v-else>
        <input
          :id="id"
          class="field !w-14 text-end"
          type="number"
          min="0"
          :step="field.step ?? 1"
          :value="shownValue(field, rules)"
          @input="writeInto(rules, field, $event)"
        />
        <span class="w-16 text-ink-soft">{{ field.unit }}</span>
      </template>
    </p>
    <p class="text-ink-soft">
      {{ example }} <i v-if="was">{{ was }}</i>
    </p>
  </div>
</template>
