<script setup lang="ts">
import type { Schemas } from '../../api/client'
import { second } from '../../ui/format'

/** A figure and what it comes from, down to the entries. */
defineProps<{ figure: Schemas['Figure']; entries: Map<string, Schemas['ExplainedEntry']> }>()
const how: Record<Schemas['Reckoning'], string> = {
  given: '',
  sum: 'the sum of',
  product: 'the product of',
  quotient: 'the first divided by the second',
  least: 'the least of',
  greatest: 'the greatest of',
}
const plain = (n: number) => String(Math.round(n * 10_000) / 10_000)
</script>

<template>
  <div class="text-small">
    <p class="flex gap-2 border-b border-rule py-0.5">
      <span class="flex-1"
        >{{ figure.label }}<i v-if="figure.parts.length" class="text-ink-soft">, {{ how[figure.how] }}</i></span
      >
      <b>{{ plain(figure.value) }}</b>
    </p>
    <div v-if="figure.parts.length || figure.entries.length" class="ml-2 border-l border-rule pl-2">
      <FigureTree v-for="(part, i) in figure.parts" :key="i" :figure="part" :entries="entries" />
      <p v-for="id in figure.entries" :key="id" class="text-ink-soft">
        <template v-if="entries.get(id)">{{ second(entries.get(id)!.at) }} {{ entries.get(id)!.text }}</template>
      </p>
    </div>
  </div>
</template>
