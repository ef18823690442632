<script setup lang="ts">
import { computed } from 'vue'
import ClassTabs from '../../ui/ClassTabs.vue'
import Notice from '../../ui/Notice.vue'
import Page from '../../ui/Page.vue'
import UndoNote from '../../ui/UndoNote.vue'
import type { Rules } from '../ground-rules/rules'
import BandList from './BandList.vue'
import BeforeAfter from './BeforeAfter.vue'
import CriterionList from './CriterionList.vue'
import SchemeFields from './SchemeFields.vue'
import SchemeFoot from './SchemeFoot.vue'
import SchemeSources from './SchemeSources.vue'
import { useScheme } from './scheme'
import VersionList from './VersionList.vue'
import WeightSliders from './WeightSliders.vue'

/** How a class scores: what it is made of, and what a change would make of everybody before it is made. */
const props = defineProps<{ id: string }>()
const { query, view, rules, stored, changed, why, chosen, compared, wrong, due, done, problem, begin, store } =
  useScheme(props.id)
const examples = computed(() =>
  Object.fromEntries((compared.value?.examples ?? view.value?.examples ?? []).map((e) => [e.rule, e.text])),
)
function take(scheme: Rules['scheme'], reason: string) {
  rules.value = { ...rules.value!, scheme }
  why.value ||= reason
}
</script>

<template>
  <Page>
    <template #above><ClassTabs :id="id" :name="view?.name" /></template>
    <Notice v-if="query.error.value" tone="wrong">{{ query.error.value.message }}</Notice>
    <div v-if="view && rules && stored" class="pair">
      <section aria-labelledby="scheme">
        <h1 id="scheme" class="rule-head flex items-baseline justify-between">
          Scheme
          <span class="text-small font-normal text-ink-soft"
            >version {{ view.version }}{{ changed ? ', being changed' : ', in force' }}</span
          >
        </h1>
        <SchemeSources :id="id" :view="view" :scheme="rules.scheme" @take="take" />
        <WeightSliders v-model="rules.scheme.weights" :before="stored.scheme.weights" :example="examples.weights" />
        <SchemeFields v-model="rules" :before="stored" :examples="examples" />
        <BandList v-model="rules.scheme.bands" class="mt-4" />
        <CriterionList v-model="rules.scheme.criteria" class="mt-4" />
        <VersionList class="mt-4" :versions="view.versions" @take="take" />
      </section>
      <BeforeAfter
        v-model="chosen"
        :class-id="id"
        :compared="compared"
        :lessons="view.lessons"
        :bands="rules.scheme.bands"
        :changed="changed"
        :places="rules.scheme.places"
      />
    </div>
    <SchemeFoot
      v-if="view && rules"
      v-model="why"
      :changed="changed"
      :wrong="wrong ?? problem"
      :due="due"
      :lessons="view.lessons"
      :chosen="chosen"
      :version="view.version"
      @store="store"
      @leave="begin"
    >
      <UndoNote v-model="done" />
    </SchemeFoot>
  </Page>
</template>

<style scoped>
.pair {
  display: grid;
  grid-template-columns: 340px minmax(0, 1fr);
  gap: 36px;
  align-items: start;
}
@media (max-width: 960px) {
  .pair {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
