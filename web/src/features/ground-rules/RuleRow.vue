<script setup lang="ts">
import { computed } from 'vue'
import RuleLine from './RuleLine.vue'
import { shownValue, writeInto, type RuleField, type Rules } from './rules'

/** One rule: its value, what it comes to in an example, and the way back to where it came from. */
const rules = defineModel<Rules>({ required: true })
const props = defineProps<{ field: RuleField; defaults: Rules; origin: string; example?: string }>()
const isDefault = computed(() => props.field.get(rules.value) === props.field.get(props.defaults))
const defaultWords = computed(() => {
  const value = shownValue(props.field, props.defaults)
  return props.field.choices?.find((c) => c.value === value)?.label ?? `${value} ${props.field.unit}`
})
</script>

<template>
  <RuleLine>
    <template #what>
      <label :for="`rule-${field.rule}`">{{ field.label }}</label>
    </template>
    <span class="flex items-baseline gap-2">
      <select
        v-if="field.choices"
        :id="`rule-${field.rule}`"
        class="field"
        :value="String(field.get(rules))"
        @change="writeInto(rules, field, $event)"
      >
        <option v-for="choice in field.choices" :key="String(choice.value)" :value="String(choice.value)">
          {{ choice.label }}
        </option>
      </select>
      <template v-else>
        <input
          :id="`rule-${field.rule}`"
          class="field !w-16 text-end"
          type="number"
          min="0"
          :step="field.step ?? 1"
          :value="shownValue(field, rules)"
          @input="writeInto(rules, field, $event)"
        />
        <span class="text-ink-soft">{{ field.unit }}</span>
      </template>
    </span>
    <template #example>
      {{ example }}
      <i v-if="!isDefault" class="block text-small text-ink-soft"
        >{{ origin }}: {{ defaultWords }}
        <button type="button" class="quiet" @click="field.set(rules, field.get(defaults))">take it back</button></i
      >
    </template>
  </RuleLine>
</template>
