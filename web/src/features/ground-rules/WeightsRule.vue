<script setup lang="ts">
import { computed } from 'vue'
import RuleLine from './RuleLine.vue'
import { strands, type Rules } from './rules'

/** How much each strand weighs in a score. */
const weights = defineModel<Rules['scheme']['weights']>({ required: true })
defineProps<{ example?: string }>()
const sum = computed(() => strands.reduce((all, s) => all + (weights.value[s.name] ?? 0), 0))
</script>

<template>
  <section aria-label="Weights of the strands">
    <h2 id="weights" class="rule-head">Weights of the strands</h2>
    <RuleLine>
      <template #what>A score is woven from</template>
      <span class="col-span-1 flex flex-wrap gap-x-5 gap-y-1">
        <label v-for="strand in strands" :key="strand.name" class="text-small"
          >{{ strand.label
          }}<input
            v-model.number="weights[strand.name]"
            class="field !w-14 text-end text-base"
            type="number"
            min="0"
            max="100"
            step="0.5"
        /></label>
      </span>
      <template #example
        >{{ example
        }}<span class="weave" role="img" :aria-label="strands.map((s) => `${s.label} ${weights[s.name]}`).join(', ')"
          ><span
            v-for="strand in strands"
            :key="strand.name"
            :style="{ flexGrow: weights[strand.name] ?? 0, background: strand.pen }" /></span
        ><span class="text-small text-ink-soft"
          >{{ sum }} in all; strands without a chance are left out.</span
        ></template
      >
    </RuleLine>
  </section>
</template>

<style scoped>
.weave {
  display: flex;
  gap: 3px;
  height: 5px;
  margin: 6px 0 4px;
}
.weave span {
  flex-basis: 0;
}
</style>
