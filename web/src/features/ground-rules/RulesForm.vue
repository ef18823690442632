<script setup lang="ts">
import { computed, onBeforeUnmount, ref, watch } from 'vue'
import { api, ask, type Schemas } from '../../api/client'
import type { Done } from '../../ui/done'
import { count } from '../../ui/format'
import LineList from '../../ui/LineList.vue'
import MarkdownField from '../../ui/MarkdownField.vue'
import Notice from '../../ui/Notice.vue'
import UndoNote from '../../ui/UndoNote.vue'
import { nodKeys } from '../../live/acts'
import RuleJumps from './RuleJumps.vue'
import { ruleSections, shownValue, storedValue, strands, type RuleField, type Rules } from './rules'

/** Ground rules of a class or a lesson: each with an example that the rules themselves reckon while it is changed. */
const props = defineProps<{
  view: Schemas['RulesView']
  store: (rules: Rules) => Promise<Schemas['RulesStored']>
  /** What the rules follow where nobody changed them: "the default", "the class". */
  origin: string
}>()

const copy = (rules: Schemas['ClassRules']) => JSON.parse(JSON.stringify(rules)) as Rules
const rules = ref(copy(props.view.rules))
const defaults = computed(() => props.view.defaults as Rules)
const examples = ref<Record<string, string>>({})
const problem = ref<string>()
const done = ref<Done>()
const busy = ref(false)
const changed = computed(() => JSON.stringify(rules.value) !== JSON.stringify(props.view.rules))
const weights = computed(() => strands.reduce((sum, s) => sum + (rules.value.scheme.weights[s.name] ?? 0), 0))
let timer: ReturnType<typeof setTimeout> | undefined
let asked = 0

const take = (list: readonly Schemas['RuleExample'][]) =>
  (examples.value = Object.fromEntries(list.map((e) => [e.rule, e.text])))
take(props.view.examples)

watch(
  rules,
  () => {
    clearTimeout(timer)
    timer = setTimeout(async () => {
      const mine = ++asked
      try {
        const tried = await ask(api.POST('/api/rules/examples', { body: { rules: rules.value } }))
        if (mine !== asked) return
        take(tried.examples)
        problem.value = undefined
      } catch (failure) {
        if (mine === asked) problem.value = (failure as Error).message
      }
    }, 200)
  },
  { deep: true },
)
onBeforeUnmount(() => clearTimeout(timer))

const isDefault = (field: RuleField) => field.get(rules.value) === field.get(defaults.value)
const defaultWords = (field: RuleField) => {
  const value = shownValue(field, defaults.value)
  return field.choices?.find((c) => c.value === value)?.label ?? `${value} ${field.unit}`
}

function write(field: RuleField, event: Event) {
  const input = event.target as HTMLInputElement | HTMLSelectElement
  if (field.choices) field.set(rules.value, field.choices[(input as HTMLSelectElement).selectedIndex]!.value)
  else if (input.value !== '' && Number.isFinite(Number(input.value)))
    field.set(rules.value, storedValue(field, Number(input.value)))
}

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
      : ''
    done.value = { said: `The ground rules are stored.${anew}`, undo: () => storeAs(before) }
  } catch (failure) {
    problem.value = (failure as Error).message
  } finally {
    busy.value = false
  }
}

const idOf = (head: string) => `rules-${head.toLowerCase().replace(/ /g, '-')}`
const parts = [
  ...ruleSections.map((s) => ({ id: idOf(s.head), label: s.head })),
  { id: 'weights', label: 'Weights' },
  { id: 'nods', label: 'Nods' },
  { id: 'signals', label: 'Signals' },
  { id: 'before-start', label: 'Reminders' },
  { id: 'rubric', label: 'Rubric' },
  { id: 'word', label: 'Word ahead' },
]

/** Brings in the rules of somewhere else, to be looked at before they are stored. */
function bringIn(other: Schemas['ClassRules']) {
  rules.value = copy(other)
}
defineExpose({ bringIn })
</script>

<template>
  <form class="mt-4 max-w-[70rem]" @submit.prevent="storeThem">
    <RuleJumps :parts="parts" />
    <section v-for="section in ruleSections" :key="section.head" class="mt-6" :aria-label="section.head">
      <h2 :id="idOf(section.head)" class="rule-head">{{ section.head }}</h2>
      <div v-for="field in section.fields" :key="field.rule" class="rule">
        <label :for="`rule-${field.rule}`">{{ field.label }}</label>
        <span class="flex items-baseline gap-2">
          <select
            v-if="field.choices"
            :id="`rule-${field.rule}`"
            class="field"
            :value="String(field.get(rules))"
            @change="write(field, $event)"
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
              @input="write(field, $event)"
            />
            <span class="text-ink-soft">{{ field.unit }}</span>
          </template>
        </span>
        <span class="example">
          {{ examples[field.rule] }}
          <i v-if="!isDefault(field)" class="block text-small text-ink-soft"
            >{{ origin }}: {{ defaultWords(field) }}
            <button type="button" class="quiet" @click="field.set(rules, field.get(defaults))">take it back</button></i
          >
        </span>
      </div>
    </section>

    <section class="mt-6" aria-label="Weights of the strands">
      <h2 id="weights" class="rule-head">Weights of the strands</h2>
      <div class="rule">
        <span>A score is woven from</span>
        <span class="col-span-1 flex flex-wrap gap-x-5 gap-y-1">
          <label v-for="strand in strands" :key="strand.name" class="text-small"
            >{{ strand.label
            }}<input
              v-model.number="rules.scheme.weights[strand.name]"
              class="field !w-14 text-end text-base"
              type="number"
              min="0"
              max="100"
              step="0.5"
          /></label>
        </span>
        <span class="example"
          >{{ examples.weights
          }}<span
            class="weave"
            role="img"
            :aria-label="strands.map((s) => `${s.label} ${rules.scheme.weights[s.name]}`).join(', ')"
            ><span
              v-for="strand in strands"
              :key="strand.name"
              :class="strand.name"
              :style="{ flexGrow: rules.scheme.weights[strand.name] ?? 0 }" /></span
          ><span class="text-small text-ink-soft"
            >{{ weights }} in all; strands without a chance are left out.</span
          ></span
        >
      </div>
    </section>

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
        <div v-for="(signal, i) in rules.signals" :key="i" class="flex items-center gap-3">
          <input
            v-model="signal.meaning"
            class="field !w-28 font-semibold"
            maxlength="120"
            :aria-label="`Signal ${i + 1} means`"
          />
          <input v-model="signal.gesture" class="field" maxlength="120" :aria-label="`Signal ${i + 1} looks like`" />
          <button
            type="button"
            class="quiet text-small"
            :aria-label="`Take out the signal ${signal.meaning}`"
            @click="rules.signals.splice(i, 1)"
          >
            out
          </button>
        </div>
        <button type="button" class="quiet mt-1" @click="rules.signals.push({ meaning: '', gesture: '' })">
          Add a signal
        </button>
      </section>
      <section aria-labelledby="before-start">
        <h2 id="before-start" class="rule-head">To remember before the start</h2>
        <LineList v-model="rules.beforeStart" label="Before the start" add-label="Add a reminder" :most="20" />
      </section>
      <section aria-labelledby="before-end">
        <h2 id="before-end" class="rule-head">To remember before the end</h2>
        <LineList v-model="rules.beforeEnd" label="Before the end" add-label="Add a reminder" :most="20" />
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

    <section class="mt-8" aria-labelledby="word">
      <h2 id="word" class="rule-head">Word ahead</h2>
      <p class="mt-2 flex flex-wrap items-baseline gap-3">
        <label class="flex items-center gap-2"
          ><input v-model="rules.wordAhead.on" type="checkbox" class="size-5" /> A message goes to the class</label
        >
        <input
          v-model.number="rules.wordAhead.minutesBefore"
          class="field !w-16 text-end"
          type="number"
          min="1"
          max="1440"
          aria-label="Minutes before the lesson"
        />
        min before each lesson.
      </p>
      <label class="mt-2 block text-small text-ink-soft"
        >Subject<input v-model="rules.wordAhead.subject" class="field text-base text-ink" maxlength="200"
      /></label>
      <label class="mt-2 block text-small text-ink-soft"
        >Message<textarea v-model="rules.wordAhead.text" class="field text-base text-ink" rows="7" />
      </label>
      <p class="text-small text-ink-soft">
        In braces: {name}, {class}, {title}, {day}, {time}, {link}, {teacher}. The plan of a lesson shows how it reads
        for one student.
      </p>
    </section>

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
        <span v-if="view.settledLessons" class="text-small text-ink-soft"
          >Storing reckons {{ count(view.settledLessons, 'settled lesson') }} anew and says how many scores
          change.</span
        >
      </p>
    </div>
  </form>
</template>

<style scoped>
.rule {
  display: grid;
  grid-template-columns: 14.5rem 17rem minmax(0, 1fr);
  gap: 20px;
  align-items: baseline;
  border-bottom: 1px solid var(--rule);
  padding: 4px 0;
}
.rule .field:not(:hover, :focus) {
  border-color: transparent;
}
.example {
  color: var(--ink-soft);
}
.lists {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 28px 44px;
  margin-top: 32px;
}
.weave {
  display: flex;
  gap: 3px;
  height: 5px;
  margin: 6px 0 4px;
}
.weave span {
  flex-basis: 0;
}
.attendance {
  background: var(--pen-attendance);
}
.speaking {
  background: var(--pen-speaking);
}
.questions {
  background: var(--pen-questions);
}
.chat {
  background: var(--pen-chat);
}
.groupWork {
  background: var(--pen-group);
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
  .rule,
  .lists {
    grid-template-columns: minmax(0, 1fr);
    gap: 4px;
  }
}
</style>
