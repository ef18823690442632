<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import type { Schemas } from '../../api/client'
import { useLive } from '../../live/lesson'
import { clock, count } from '../../ui/format'
import KeyCap from '../../ui/KeyCap.vue'
import ResultsChart from './ResultsChart.vue'
import { numberIn } from '../../ui/numberIn'
import { wordSize } from './wordSize'

/** A question that was opened: who has answered, who has not, who cannot; what the answers amount to; and what can be done with it. */
const props = defineProps<{ view: Schemas['AskingView']; earlier?: Schemas['AskingView']; closeKey: string }>()
const emit = defineEmits<{ again: [] }>()
const { drawn, now, note } = useLive()

const question = computed(() => props.view.question)
const isOpen = computed(
  () => (drawn.value?.askings.find((a) => a.asking === props.view.asking)?.closedAt ?? props.view.closedAt) === null,
)
const quiz = computed(() => question.value.purpose === 'quiz')
const names = computed(() => new Map(drawn.value?.rows.map((r) => [r.id, r]) ?? []))
const nameOf = (id: string) => names.value.get(id)?.shortName ?? 'a former student'
const answered = computed(() => props.view.students.filter((s) => s.answer !== null))
const notYet = computed(() => props.view.students.filter((s) => s.answer === null && !s.cannot && s.here))
const cannot = computed(() => props.view.students.filter((s) => s.cannot))
const away = computed(() => props.view.students.filter((s) => s.answer === null && !s.cannot && !s.here))
const right = computed(() => (quiz.value ? question.value.options?.filter((o) => o.right).map((o) => o.id) : undefined))
const rightWords = computed(() => {
  const q = question.value
  if (!quiz.value) return ''
  if (q.kind === 'shortText') return q.acceptedAnswers?.join(', ') ?? ''
  if (q.kind === 'ranking') return q.options?.map((o) => o.text).join(', ') ?? ''
  return q.target === null || q.target === undefined ? '' : `${q.target}${q.tolerance ? ` ± ${q.tolerance}` : ''}`
})
const toMark = computed(() => quiz.value && question.value.kind === 'shortText')
const marksOf = (students: readonly string[]) => {
  const marks = new Set(props.view.students.filter((s) => students.includes(s.student)).map((s) => s.marks))
  return marks.size === 1 ? [...marks][0] : undefined
}

// Putting results up: what is shown with them is chosen each time.
const withRight = ref(props.view.onBoard?.withRight ?? false)
const holdBack = ref(props.view.onBoard?.holdBackFew ?? false)
const named = ref<string[]>(props.view.onBoard?.named ?? [])
const naming = ref(false)
const putUp = () =>
  note({
    type: 'resultsPut',
    asking: props.view.asking,
    withRight: withRight.value,
    holdBackFew: holdBack.value,
    named: named.value,
  })
// What is up follows what is chosen.
watch([withRight, holdBack, named], () => props.view.onBoard && putUp())

// An answer entered for somebody.
const answerFor = ref<string>()
const entered = ref('')
const chosen = ref<string[]>([])
function enter() {
  const q = question.value
  const student = answerFor.value
  if (!student) return
  const text = entered.value.trim()
  const answer =
    q.kind === 'number' || q.kind === 'scale'
      ? { number: Number(text) }
      : q.kind === 'shortText'
        ? { text }
        : q.kind === 'wordList'
          ? { words: text.split(/[,\n]/).map((w) => w.trim()) }
          : { options: chosen.value }
  note({ type: 'answerGiven', student, asking: props.view.asking, answer })
  answerFor.value = undefined
  entered.value = ''
  chosen.value = []
}
const choose = (option: string, many: boolean) =>
  (chosen.value = !many
    ? [option]
    : chosen.value.includes(option)
      ? chosen.value.filter((o) => o !== option)
      : [...chosen.value, option])

// The key, corrected.
const correcting = ref(false)
const keyRight = ref<string[]>([])
const keyTarget = ref('')
const keyTolerance = ref('0')
const keyAccepted = ref('')
const before = ref<Map<string, number | null>>()
function beginCorrecting() {
  const q = question.value
  keyRight.value = (q.kind === 'ranking' ? q.options : q.options?.filter((o) => o.right))?.map((o) => o.id) ?? []
  keyTarget.value = q.target === null || q.target === undefined ? '' : String(q.target)
  keyTolerance.value = String(q.tolerance ?? 0)
  keyAccepted.value = q.acceptedAnswers?.join('\n') ?? ''
  correcting.value = true
}
function chooseRight(option: string) {
  if (question.value.kind !== 'multipleChoice') keyRight.value = [option]
  else if (keyRight.value.includes(option)) keyRight.value = keyRight.value.filter((o) => o !== option)
  else keyRight.value = [...keyRight.value, option]
}
function correct() {
  before.value = new Map(props.view.students.map((s) => [s.student, s.marks]))
  note({
    type: 'keyCorrected',
    asking: props.view.asking,
    right: keyRight.value,
    target: keyTarget.value === '' ? null : numberIn(keyTarget.value),
    tolerance: numberIn(keyTolerance.value) || 0,
    acceptedAnswers: keyAccepted.value
      .split('\n')
      .map((line) => line.trim())
      .filter(Boolean),
  })
  correcting.value = false
}
const changed = computed(() =>
  before.value ? props.view.students.filter((s) => before.value!.get(s.student) !== s.marks) : [],
)
const markWords = (marks: number | null | undefined) =>
  marks === null || marks === undefined ? '' : Number.isInteger(marks) ? String(marks) : marks.toFixed(2)

const merging = ref<string>()
function merge(word: string) {
  if (merging.value === undefined) merging.value = word
  else {
    if (merging.value !== word)
      note({ type: 'wordsMerged', asking: props.view.asking, word: merging.value, into: word })
    merging.value = undefined
  }
}
const timeLeft = (deadline: number | null) =>
  deadline !== null && deadline > now.value ? clock(deadline - now.value) : ''
</script>

<template>
  <article :aria-label="question.text">
    <p class="text-lead leading-snug font-semibold">
      <bdi>{{ question.text }}</bdi>
    </p>
    <p class="text-small text-ink-soft" role="status">
      <b v-if="isOpen" class="text-ink">Open</b><template v-else>Closed</template>, {{ quiz ? 'quiz' : 'poll'
      }}<template v-if="question.anonymous">, anonymous</template
      ><template v-if="view.groupName">, {{ view.groupName }}</template
      >. {{ count(view.answered, 'answer')
      }}<template v-if="!question.anonymous">, {{ notYet.length }} not yet</template
      ><template v-if="cannot.length">, {{ cannot.length }} cannot</template>.
    </p>
    <p class="my-3 flex flex-wrap items-baseline gap-x-5 gap-y-1">
      <button v-if="isOpen" class="press-first" @click="note({ type: 'questionClosed', asking: view.asking })">
        Close it <KeyCap :k="closeKey" />
      </button>
      <button v-else class="press" @click="emit('again')">Ask again, as a copy</button>
      <button
        v-if="quiz && !isOpen && !view.revealed"
        class="quiet"
        @click="note({ type: 'rightRevealed', asking: view.asking })"
      >
        show what was right on student pages
      </button>
      <button v-if="quiz" class="quiet" :aria-expanded="correcting" @click="beginCorrecting">correct the key</button>
    </p>

    <form v-if="correcting" class="box" @submit.prevent="correct">
      <template v-if="question.kind === 'ranking'">
        <p class="text-small text-ink-soft">The right order</p>
        <p v-for="(o, i) in keyRight" :key="o" class="flex gap-3 border-b border-rule py-1">
          <span class="flex-1">{{ question.options?.find((q) => q.id === o)?.text }}</span>
          <button
            type="button"
            class="quiet text-small"
            :disabled="i === 0"
            @click="keyRight.splice(i - 1, 2, keyRight[i]!, keyRight[i - 1]!)"
          >
            up
          </button>
        </p>
      </template>
      <label
        v-for="o in question.kind === 'ranking' ? [] : question.options"
        :key="o.id"
        class="flex items-center gap-2 border-b border-rule py-1"
      >
        <input
          :type="question.kind === 'multipleChoice' ? 'checkbox' : 'radio'"
          name="right"
          class="size-4"
          :checked="keyRight.includes(o.id)"
          @change="chooseRight(o.id)"
        />
        <img v-if="o.picture" :src="`/api/pictures/${o.picture}`" alt="" class="h-8 border border-rule" />
        {{ o.text || o.alternativeText }}
      </label>
      <p v-if="question.kind === 'number' || question.kind === 'scale'" class="flex gap-4 text-small text-ink-soft">
        <label>right<input v-model="keyTarget" class="field text-ink" inputmode="decimal" /></label>
        <label>within ±<input v-model="keyTolerance" class="field text-ink" inputmode="decimal" /></label>
      </p>
      <label v-if="question.kind === 'shortText'" class="text-small text-ink-soft"
        >Accepted, one a line<textarea v-model="keyAccepted" class="field text-ink" rows="3" />
      </label>
      <p class="mt-2 flex gap-4">
        <button class="press">Mark anew</button>
        <button type="button" class="quiet" @click="correcting = false">not now</button>
      </p>
    </form>
    <p v-if="before" class="box text-small" role="status">
      <template v-if="changed.length"
        >The key was corrected:
        <span v-for="s in changed" :key="s.student"
          >{{ nameOf(s.student) }} {{ markWords(before.get(s.student)) || '–' }} → {{ markWords(s.marks) || '–' }};
        </span></template
      >
      <template v-else>The key was corrected. No mark is another than before.</template>
      <button class="quiet ml-2" @click="before = undefined">put away</button>
    </p>

    <p v-if="view.heldBack" class="py-2 text-ink-soft italic">{{ view.heldBack }}</p>
    <div v-else :class="{ sides: earlier }">
      <div v-if="earlier">
        <p class="text-small font-semibold">Before</p>
        <ResultsChart
          :kind="earlier.question.kind"
          :options="(earlier.question.options ?? []) as never"
          v-bind="earlier.results"
        />
      </div>
      <div>
        <p v-if="earlier" class="text-small font-semibold">After</p>
        <template v-if="question.kind === 'wordList'">
          <p v-for="w in view.results.words" :key="w.folded" class="word-line">
            <b class="w-7 text-right">{{ w.count }}</b>
            <bdi class="flex-1" :style="{ fontSize: wordSize(w.count, view.results.words) }">{{ w.word }}</bdi>
            <span v-if="w.with.length" class="text-small text-ink-soft">with {{ w.with.join(', ') }}</span>
            <button class="quiet text-small" :aria-pressed="merging === w.folded" @click="merge(w.folded)">
              {{ merging === undefined ? 'is the same as…' : merging === w.folded ? 'not' : 'this one' }}
            </button>
          </p>
        </template>
        <template v-else-if="toMark">
          <p v-for="t in view.results.texts" :key="t.text" class="word-line">
            <b class="w-7 text-right">{{ t.count }}</b>
            <span class="flex-1"
              ><bdi>{{ t.texts.join(' · ') }}</bdi>
              <span class="text-small text-ink-soft"> {{ t.students.map(nameOf).join(', ') }}</span></span
            >
            <span class="flex gap-2 text-small">
              <button
                v-for="m in [0, 0.5, 1]"
                :key="m"
                class="quiet"
                :aria-pressed="marksOf(t.students) === m"
                :aria-label="`${t.text}: ${m}`"
                @click="note({ type: 'answersMarked', asking: view.asking, students: t.students, marks: m })"
              >
                {{ m === 0.5 ? '½' : m }}
              </button>
            </span>
          </p>
        </template>
        <ResultsChart
          v-else
          :kind="question.kind"
          :options="(question.options ?? []) as never"
          :right="right"
          :scale-from-label="question.scaleFromLabel"
          :scale-to-label="question.scaleToLabel"
          v-bind="view.results"
        />
        <p v-if="rightWords" class="py-1 text-small">Right: {{ rightWords }}</p>
      </div>
    </div>

    <p class="mt-3 flex flex-wrap items-center gap-x-5 gap-y-1 text-small">
      <button v-if="view.onBoard" class="press" @click="note({ type: 'boardTaken', item: 'results' })">
        Take off the board
      </button>
      <button v-else class="press" :disabled="!!view.heldBack" @click="putUp">Put on the board</button>
      <label v-if="quiz" class="flex items-center gap-1"
        ><input v-model="withRight" type="checkbox" class="size-4" /> with what was right</label
      >
      <label class="flex items-center gap-1"
        ><input v-model="holdBack" type="checkbox" class="size-4" /> counts under 3 held back</label
      >
      <button
        v-if="!question.anonymous && answered.length"
        class="quiet"
        :aria-expanded="naming"
        @click="naming = !naming"
      >
        {{ named.length ? `with ${count(named.length, 'name')}` : 'with a name…' }}
      </button>
    </p>

    <template v-if="!question.anonymous">
      <p class="mt-4 border-b-[1.5px] border-ink text-small font-semibold">
        {{ answered.length }} answered
        <span v-if="naming" class="font-normal text-ink-soft">– tick those whose answer is shown with their name</span>
      </p>
      <div class="columns">
        <p v-for="s in answered" :key="s.student" class="student">
          <input
            v-if="naming"
            v-model="named"
            type="checkbox"
            class="size-4"
            :value="s.student"
            :aria-label="`Show the answer of ${nameOf(s.student)} with their name`"
          />
          <b>{{ nameOf(s.student) }}</b>
          <bdi class="flex-1 truncate">{{ s.answer }}</bdi>
          <i v-if="s.byTeacher" class="text-small text-ink-soft">entered</i>
          <b v-if="quiz">{{ s.marks === null ? 'to mark' : markWords(s.marks) }}</b>
          <button
            class="quiet text-small"
            :aria-label="`Answer for ${nameOf(s.student)}`"
            @click="answerFor = s.student"
          >
            other
          </button>
        </p>
      </div>
      <template
        v-for="[title, those] in [
          ['Not yet', notYet],
          ['Cannot', cannot],
          ['Not here', away],
        ] as const"
        :key="title"
      >
        <p v-if="those.length" class="mt-3 border-b-[1.5px] border-ink text-small font-semibold">
          {{ those.length }} {{ title.toLowerCase() }}
        </p>
        <div class="columns">
          <p v-for="s in those" :key="s.student" class="student">
            <b>{{ nameOf(s.student) }}</b>
            <span class="flex-1 text-small text-ink-soft">{{ timeLeft(s.deadline) }}</span>
            <button
              class="quiet text-small"
              :aria-label="`Answer for ${nameOf(s.student)}`"
              @click="answerFor = s.student"
            >
              answer for them
            </button>
            <button
              v-if="!s.cannot"
              class="quiet text-small"
              :aria-label="`${nameOf(s.student)} cannot answer`"
              @click="note({ type: 'cannotAnswer', student: s.student, asking: view.asking })"
            >
              cannot
            </button>
          </p>
        </div>
      </template>
    </template>

    <form v-if="answerFor" class="box" @submit.prevent="enter">
      <p>
        <b>{{ nameOf(answerFor) }}</b> answers
      </p>
      <template v-if="question.options?.length">
        <label v-for="o in question.options" :key="o.id" class="flex items-center gap-2 border-b border-rule py-1">
          <input
            :type="['multipleChoice', 'ranking'].includes(question.kind) ? 'checkbox' : 'radio'"
            name="answer-for"
            class="size-4"
            :checked="chosen.includes(o.id)"
            @change="choose(o.id, ['multipleChoice', 'ranking'].includes(question.kind))"
          />
          <b v-if="question.kind === 'ranking' && chosen.includes(o.id)">{{ chosen.indexOf(o.id) + 1 }}</b>
          {{ o.text || o.alternativeText }}
        </label>
      </template>
      <input v-else v-model="entered" class="field" aria-label="Their answer" maxlength="400" />
      <p class="mt-2 flex gap-4">
        <button class="press">Enter it</button>
        <button type="button" class="quiet" @click="answerFor = undefined">not now</button>
      </p>
    </form>
  </article>
</template>

<style scoped>
.box {
  margin: 8px 0;
  padding: 8px 12px;
  border-left: 2px solid var(--ink);
}
.sides {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 24px;
}
.word-line,
.student {
  display: flex;
  gap: 10px;
  align-items: baseline;
  min-height: 28px;
  padding: 3px 0;
  border-bottom: 1px solid var(--rule);
  overflow-wrap: anywhere;
}
/* Names beside each other, so that who has not answered is seen at a glance. */
.columns {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(17rem, 1fr));
  column-gap: 28px;
}
[aria-pressed='true'] {
  font-weight: 700;
}
</style>
