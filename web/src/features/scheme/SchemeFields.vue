<script setup lang="ts">
import { schemeSections, type Rules } from '../ground-rules/rules'
import SchemeField from './SchemeField.vue'

/** What else a score is made of, part by part; of each what it comes to in an example. */
const rules = defineModel<Rules>({ required: true })
const props = defineProps<{ before: Rules; examples: Record<string, string> }>()
const changes = (fields: (typeof schemeSections)[number]['fields']) =>
  fields.filter((f) => f.get(rules.value) !== f.get(props.before)).length
</script>

<template>
  <details v-for="section in schemeSections" :key="section.head" class="mt-3">
    <summary class="quiet text-small">
      {{ section.head }}<b v-if="changes(section.fields)">, {{ changes(section.fields) }} changed</b>
    </summary>
    <SchemeField
      v-for="field in section.fields"
      :key="field.rule"
      v-model="rules"
      :field="field"
      :before="before"
      :example="examples[field.rule]"
    />
  </details>
</template>
