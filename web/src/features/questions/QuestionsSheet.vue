<script setup lang="ts">
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, nextTick, ref, useTemplateRef, watch } from 'vue'
import { api, ask, type Schemas } from '../../api/client'
import { useLive } from '../../live/lesson'
import { clock, count, hour } from '../../ui/format'
import KeyCap from '../../ui/KeyCap.vue'
import { digitOf } from '../live/acts'
import { usePlan, type Question } from '../plans/plan'
import QuestionEditor from '../plans/QuestionEditor.vue'
import AskedQuestion from './AskedQuestion.vue'
import { blanksOf, filled, onTheSpot, opening } from './asking'

/** Questions of the lesson: those that wait, to be edited and opened here, and those that were opened, with who has answered and what came of it. */
const props = defineProps<{ id: string; openKey: string }>()
const emit = defineEmits<{ close: [] }>()
const { head, drawn, now, note } = useLive()
const { plan, state: stored } = usePlan(props.id)
const queries = useQueryClient()

const key = ['questions', props.id]
const { data } = useQuery({
  queryKey: key,
  queryFn: () => ask(api.GET('/api/lessons/{id}/questions', { params: { path: { id: props.id } } })),
})
watch(
  () => [head.value?.position, drawn.value?.askings.map((a) => a.answered).join()],
  () => void queries.invalidateQueries({ queryKey: key }),
)

const rows = computed(() => drawn.value?.rows ?? [])
const running = computed(() => head.value?.stage === 'live')
const lines = computed(() => [...(drawn.value?.askings ?? [])].reverse())
const asked = computed(() => new Set(lines.value.map((a) => a.question)))
const waiting = computed(() => plan.value?.questions.filter((q) => !asked.value.has(q.id)) ?? [])
const order = computed(() => [...lines.value.map((a) => a.asking), ...waiting.value.map((q) => q.id)])
const at = ref<string>()
const current = computed(
  () =>
    (at.value && order.value.includes(at.value) ? at.value : undefined) ??
    lines.value.find((a) => a.closedAt === null)?.asking ??
    waiting.value[0]?.id ??
    order.value[0],
)
const currentAsked = computed(() => data.value?.askings.find((a) => a.asking === current.value))
const earlier = computed(() => data.value?.askings.find((a) => a.asking === currentAsked.value?.copyOf))
const place = computed(() => plan.value?.questions.findIndex((q) => q.id === current.value) ?? -1)

const group = ref<string>('')
const blanks = ref<Record<string, string>>({})
const blankNames = computed(() => {
  const question = plan.value?.questions[place.value]
  return question ? blanksOf(question) : []
})
const preview = computed(() => {
  const question = plan.value?.questions[place.value]
  return question && filled(question, blanks.value)
})
const editing = ref(false)
const list = useTemplateRef<HTMLElement>('list')
const blankFields = useTemplateRef<HTMLInputElement[]>('blankFields')
watch(current, async () => {
  blanks.value = {}
  editing.value = false
  // What is opened moves to the top of the list, and what is looked at may be anywhere in it.
  await nextTick()
  list.value?.querySelector('[aria-current]')?.scrollIntoView({ block: 'nearest' })
})

const spotText = ref('')
const spotChoices = ref('')
const choosing = ref(false)
const spotField = useTemplateRef<HTMLInputElement>('spotField')

function open(question: Question, to: string | null, copy: string | null = null) {
  if (!running.value) return
  const [entry] = note(opening(question, to, copy, rows.value, head.value?.plan.extraTimeShare ?? 0))
  at.value = entry
}
/** Opens the question that is looked at; with blanks in it, they come first. */
async function openCurrent() {
  const question = plan.value?.questions[place.value]
  if (!question || asked.value.has(question.id)) return
  const ready = filled(question, blanks.value)
  if (blanksOf(ready).length) {
    await nextTick()
    blankFields.value?.find((f) => !f.value)?.focus()
    return
  }
  open(JSON.parse(JSON.stringify(ready)) as Question, group.value || null)
}
/** Opens the waiting question that is looked at, or else the next one, as soon as the plan is here. */
function openNext() {
  const go = () => {
    if (!waiting.value.some((q) => q.id === current.value)) at.value = waiting.value[0]?.id
    void nextTick(openCurrent)
  }
  if (plan.value) go()
  else {
    const stop = watch(plan, () => {
      stop()
      go()
    })
  }
}
function openSpot() {
  if (!spotText.value.trim()) return
  open(onTheSpot(spotText.value, choosing.value ? spotChoices.value : ''), group.value || null)
  spotText.value = ''
  spotChoices.value = ''
  choosing.value = false
  ;(document.activeElement as HTMLElement | null)?.blur()
}
function askAgain(view: Schemas['AskingView']) {
  const question = JSON.parse(JSON.stringify(view.question)) as Question
  // Options keep their ids, so that before and after can be laid side by side.
  open({ ...question, id: crypto.randomUUID() }, null, view.asking)
}

function move(step: number) {
  const index = order.value.indexOf(current.value ?? '')
  at.value = order.value[Math.max(0, Math.min(order.value.length - 1, index + step))]
}
function onKey(event: KeyboardEvent) {
  if (event.key === 'ArrowDown') move(1)
  else if (event.key === 'ArrowUp') move(-1)
  else if (digitOf(event) === '0') spotField.value?.focus()
  else if (event.key === 'Enter' && place.value >= 0 && !asked.value.has(current.value!)) void openCurrent()
  else return false
  return true
}
defineExpose({ onKey, openNext })

const timeOf = (line: Schemas['AskingLine']) => {
  if (line.closedAt !== null) return hour(line.openedAt)
  if (line.seconds === null) return clock(now.value - line.openedAt)
  const left = line.openedAt + line.seconds * 1000 - now.value
  return left > 0 ? `${clock(left)} left` : 'time is up'
}
</script>

<template>
  <section class="questions" aria-label="Questions and answers">
    <div class="rule-head">
      <h2>Questions</h2>
      <span class="flex flex-wrap gap-x-4 text-small font-normal">
        <span v-if="stored !== 'all stored'" class="italic">{{ stored }}</span>
        <button class="quiet" @click="emit('close')">back to the sheet <KeyCap k="Esc" /></button>
      </span>
    </div>
    <div class="two">
      <nav ref="list" class="list" aria-label="Questions of this lesson">
        <form v-if="running" class="spot" @submit.prevent="openSpot">
          <label class="text-small text-ink-soft" for="spot">On the spot <KeyCap k="0" /></label>
          <input
            id="spot"
            ref="spotField"
            v-model="spotText"
            class="field"
            maxlength="1000"
            placeholder="Ask something"
            autocomplete="off"
          />
          <textarea
            v-if="choosing"
            v-model="spotChoices"
            class="field text-small"
            rows="3"
            aria-label="Choices, one a line"
            placeholder="one choice a line"
          />
          <p class="flex items-baseline justify-between gap-3 text-small">
            <button type="button" class="quiet" :aria-pressed="choosing" @click="choosing = !choosing">
              {{ choosing ? 'yes or no' : 'other choices' }}
            </button>
            <button class="quiet font-semibold" :disabled="!spotText.trim()">open it <KeyCap k="Enter" /></button>
          </p>
        </form>
        <button
          v-for="line in lines"
          :key="line.asking"
          class="line"
          :class="{ here: line.asking === current, open: line.closedAt === null }"
          :aria-current="line.asking === current ? 'true' : undefined"
          @click="at = line.asking"
        >
          <span class="text"
            ><bdi>{{ line.text }}</bdi></span
          >
          <span class="text-small"
            ><b v-if="line.closedAt === null">open, </b>{{ timeOf(line) }}, {{ line.answered }} of
            {{ line.goesTo - line.cannot }}</span
          >
        </button>
        <p v-if="waiting.length" class="mt-3 border-b-[1.5px] border-ink text-small font-semibold">
          {{ count(waiting.length, 'question') }} waiting
        </p>
        <button
          v-for="q in waiting"
          :key="q.id"
          class="line"
          :class="{ here: q.id === current }"
          :aria-current="q.id === current ? 'true' : undefined"
          @click="at = q.id"
        >
          <span class="text">{{ q.text || 'A question without words' }}</span>
        </button>
        <p v-if="!order.length" class="py-3 text-ink-soft">
          Nothing is prepared for this lesson. Ask on the spot, or write questions in the plan.
        </p>
      </nav>

      <div class="one">
        <AskedQuestion
          v-if="currentAsked"
          :key="currentAsked.asking"
          :view="currentAsked"
          :earlier="earlier"
          :close-key="openKey"
          @again="askAgain(currentAsked)"
        />
        <template v-else-if="place >= 0 && plan && !asked.has(current!)">
          <p class="text-lead leading-snug font-semibold">{{ preview!.text || 'A question without words' }}</p>
          <ol v-if="!editing" class="my-2">
            <li v-for="o in preview!.options" :key="o.id" class="border-b border-rule py-1">
              {{ o.text || o.alternativeText }}<i v-if="o.right" class="text-small text-ink-soft"> right</i>
            </li>
          </ol>
          <label v-for="name in blankNames" :key="name" class="mt-1 block text-small text-ink-soft">
            {{ name }}
            <input
              ref="blankFields"
              v-model="blanks[name]"
              class="field text-ink"
              maxlength="120"
              @keydown.enter.prevent.stop="openCurrent"
            />
          </label>
          <p class="my-3 flex flex-wrap items-baseline gap-x-5 gap-y-2">
            <button v-if="running" class="press-first" @click="openCurrent">
              Open it <KeyCap :k="lines.some((l) => l.closedAt === null) ? 'Enter' : openKey" />
            </button>
            <label v-if="drawn?.groups.length" class="flex items-baseline gap-2 text-small"
              >to
              <select v-model="group" class="field">
                <option value="">the whole class</option>
                <option v-for="g in drawn.groups" :key="g.id" :value="g.id">{{ g.name }}</option>
              </select>
            </label>
            <button class="quiet" :aria-expanded="editing" @click="editing = !editing">
              {{ editing ? 'done' : 'edit it' }}
            </button>
          </p>
          <QuestionEditor v-if="editing" v-model="plan.questions[place]!" />
        </template>
        <p v-else-if="lines.some((l) => l.asking === current)" class="text-ink-soft italic">In pencil…</p>
      </div>
    </div>
  </section>
</template>

<style scoped>
.questions {
  display: flex;
  flex-direction: column;
  height: 100%;
}
.rule-head {
  flex: none;
}
.two {
  display: grid;
  grid-template-columns: 270px minmax(0, 1fr);
  gap: 24px;
  flex: 1;
  min-height: 0;
}
.list,
.one {
  overflow-y: auto;
  padding: 8px 2px 16px;
}
.spot {
  margin-bottom: 12px;
}
.line {
  display: block;
  width: 100%;
  padding: 5px 6px 4px 10px;
  border-bottom: 1px solid var(--rule);
  text-align: start;
  overflow-wrap: anywhere;
}
.line:hover {
  background: var(--paper-deep);
}
.here {
  background: var(--paper-deep);
  box-shadow: inset 3px 0 0 var(--ink);
}
.line.open {
  background: var(--live);
  color: var(--on-live);
}
.text {
  display: -webkit-box;
  overflow: hidden;
  -webkit-box-orient: vertical;
  -webkit-line-clamp: 2;
  line-clamp: 2;
}
.one {
  border-left: 1px solid var(--rule);
  padding-left: 20px;
}
@media (max-width: 900px) {
  .two {
    grid-template-columns: minmax(0, 1fr);
    overflow-y: auto;
  }
  .list,
  .one {
    overflow: visible;
    border-left: 0;
    padding-left: 0;
  }
  .one {
    grid-row: 1;
  }
}
</style>
