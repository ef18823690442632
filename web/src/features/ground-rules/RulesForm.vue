<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Schemas } from '../../api/client'
import type { Done } from '../../ui/done'
import { count } from '../../ui/format'
import LineList from '../../ui/LineList.vue'
import MarkdownField from '../../ui/MarkdownField.vue'
import Notice from '../../ui/Notice.vue'
import UndoNote from '../../ui/UndoNote.vue'
import { nodKeys } from '../../live/acts'
import { useExamples } from './examples'
import RuleJumps from './RuleJumps.vue'
import ReminderRules from './ReminderRules.vue'
import RuleRow from './RuleRow.vue'
import { groundSections, partsOf, placeOf, ruleSections, type Rules } from './rules'
import RegisterRules from './RegisterRules.vue'
import SignalList from './SignalList.vue'
import WeightsRule from './WeightsRule.vue'
import WordAheadRules from './WordAheadRules.vue'

/** Ground rules of a class or a lesson: each with an example that the rules themselves reckon while it is changed. */
const props = defineProps<{
  view: Schemas['RulesView']
  store: (rules: Rules) => Promise<Schemas['RulesStored']>
  /** What the rules follow where nobody changed them: "the default", "the class". */
  origin: string
  /** Whether what a score is made of stands here, too: a class has a page of its own for it. */
  withScheme?: boolean
}>()

const copy = (rules: Schemas['ClassRules']) => JSON.parse(JSON.stringify(rules)) as Rules
const rules = ref(copy(props.view.rules))
const defaults = computed(() => props.view.defaults as Rules)
const { examples, problem } = useExamples(rules, props.view.examples)
const done = ref<Done>()
const busy = ref(false)
const changed = computed(() => JSON.stringify(rules.value) !== JSON.stringify(props.view.rules))
async function storeAs(wanted: Rules) {
  const stored = await props.store(wanted)
  rules.value = copy(stored.view.rules)
  return stored
}

async function storeThem() {
  problem.value = undefined
  busy.value = true
  const before = copy(props.view.rules)
  try {
    const stored = await storeAs(rules.value)
    const anew = stored.lessons
      ? ` ${count(stored.lessons, 'settled lesson')} reckoned anew: ${count(stored.scores, 'score')} changed.`
      : stored.version
        ? ` They count from the next lesson on, as version ${stored.version} of the scheme; settled lessons keep theirs.`
        : ''
    done.value = { said: `The ground rules are stored.${anew}`, undo: () => storeAs(before) }
  } catch (failure) {
    problem.value = (failure as Error).message
  } finally {
    busy.value = false
  }
}

/** Brings in the rules of somewhere else, to be looked at before they are stored. */
function bringIn(other: Schemas['ClassRules']) {
  rules.value = copy(other)
}
defineExpose({ bringIn })
</script>

<template>
  <form class="mt-4 max-w-[70rem]" @submit.prevent="storeThem">
    <RuleJumps :parts="partsOf(withScheme)" />
    <section
      v-for="section in withScheme ? ruleSections : groundSections"
      :key="section.head"
      class="mt-6"
      :aria-label="section.head"
    >
      <h2 :id="placeOf(section.head)" class="rule-head">{{ section.head }}</h2>
      <RuleRow
        v-for="field in section.fields"
        :key="field.rule"
        v-model="rules"
        :field="field"
        :defaults="defaults"
        :origin="origin"
        :example="examples[field.rule]"
      />
    </section>

    <WeightsRule v-if="withScheme" v-model="rules.scheme.weights" class="mt-6" :example="examples.weights" />

    <div class="lists">
      <section aria-labelledby="nods">
        <h2 id="nods" class="rule-head">What earns a nod</h2>
        <LineList
          v-model="rules.nodReasons"
          label="Reasons for nods"
          add-label="Add a reason"
          :most="5"
          :keys="nodKeys"
        />
      </section>
      <section aria-labelledby="signals">
        <h2 id="signals" class="rule-head">Agreed signals</h2>
        <SignalList v-model="rules.signals" />
      </section>
      <section aria-labelledby="before-start">
        <h2 id="before-start" class="rule-head">To remember before the start</h2>
        <ReminderRules v-model="rules.beforeStart" v-model:read-aloud="rules.readAloud" label="Before the start" />
      </section>
      <section aria-labelledby="before-end">
        <h2 id="before-end" class="rule-head">To remember before the end</h2>
        <ReminderRules v-model="rules.beforeEnd" v-model:read-aloud="rules.readAloud" label="Before the end" />
      </section>
    </div>

    <section class="mt-8" aria-labelledby="rubric">
      <h2 id="rubric" class="rule-head">
        What good taking part looks like
        <slot name="rubric-act" />
      </h2>
      <MarkdownField
        v-model="rules.rubric"
        class="mt-2"
        label="The rubric, in your own words"
        :rows="7"
        placeholder="- **Listens** to others before adding to them"
      />
    </section>

    <WordAheadRules v-model="rules.wordAhead" class="mt-8" />
    <RegisterRules v-model="rules.register" class="mt-8" />

    <div class="foot">
      <Notice v-if="problem" tone="wrong">{{ problem }}</Notice>
      <UndoNote v-else v-model="done" />
      <p class="mt-2 flex items-center gap-5">
        <button class="press-first" :disabled="!changed || busy || !!problem">
          {{ busy ? 'Reckoning…' : 'Store these rules' }}
        </button>
        <button type="button" class="press" :disabled="!changed" @click="rules = copy(view.rules)">
          Back to what is stored
        </button>
        <span v-if="view.settledLessons" class="text-small text-ink-soft">{{
          withScheme
            ? 'This lesson is settled: storing reckons it anew and says how many scores change.'
            : `${count(view.settledLessons, 'settled lesson')} keep what counted when they were settled.`
        }}</span>
      </p>
    </div>
  </form>
</template>

<style scoped>
.lists {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 28px 44px;
  margin-top: 32px;
}
.foot {
  position: sticky;
  bottom: 0;
  margin-top: 28px;
  padding: 10px 0;
  background: var(--paper);
  border-top: 1.5px solid var(--ink);
}
@media (max-width: 860px) {
  .lists {
    grid-template-columns: minmax(0, 1fr);
    gap: 4px;
  }
}
</style>
