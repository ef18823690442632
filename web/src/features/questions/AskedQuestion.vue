<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Schemas } from '../../api/client'
import { useLive } from '../../live/lesson'
import { count } from '../../ui/format'
import KeyCap from '../../ui/KeyCap.vue'
import AnswerFor from './AnswerFor.vue'
import AskedResults from './AskedResults.vue'
import AskedStudents from './AskedStudents.vue'
import KeyCorrection from './KeyCorrection.vue'
import { markWords } from './markWords'
import PutUpResults from './PutUpResults.vue'

/** A question that was opened: who has answered, who has not, who cannot; what the answers amount to; and what can be done with it. */
const props = defineProps<{ view: Schemas['AskingView']; earlier?: Schemas['AskingView']; closeKey: string }>()
const emit = defineEmits<{ again: [] }>()
const { drawn, note } = useLive()

const question = computed(() => props.view.question)
const isOpen = computed(
  () => (drawn.value?.askings.find((a) => a.asking === props.view.asking)?.closedAt ?? props.view.closedAt) === null,
)
const quiz = computed(() => question.value.purpose === 'quiz')
const names = computed(() => new Map(drawn.value?.rows.map((r) => [r.id, r]) ?? []))
const nameOf = (id: string) => names.value.get(id)?.shortName ?? 'a former student'
const notYet = computed(() => props.view.students.filter((s) => s.answer === null && !s.cannot && s.here))
const cannot = computed(() => props.view.students.filter((s) => s.cannot))

const named = ref<string[]>(props.view.onBoard?.named ?? [])
const naming = ref(false)
const answerFor = ref<string>()

const correcting = ref(false)
/** The marks before the key was corrected, until what changed was looked at. */
const before = ref<Map<string, number | null>>()
const changed = computed(() => props.view.students.filter((s) => before.value?.get(s.student) !== s.marks))
const keepMarks = () => (before.value = new Map(props.view.students.map((s) => [s.student, s.marks])))
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
      <button v-if="quiz" class="quiet" :aria-expanded="correcting" @click="correcting = true">correct the key</button>
    </p>

    <KeyCorrection
      v-if="correcting"
      class="box"
      :asking="view.asking"
      :question="question"
      @correct="keepMarks"
      @close="correcting = false"
    />
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

    <AskedResults :view="view" :earlier="earlier" :name-of="nameOf" />
    <PutUpResults
      v-model:naming="naming"
      :view="view"
      :named="named"
      :can-name="!question.anonymous && view.students.some((s) => s.answer !== null)"
    />
    <AskedStudents
      v-if="!question.anonymous"
      v-model:named="named"
      :view="view"
      :naming="naming"
      :name-of="nameOf"
      @answer-for="(student) => (answerFor = student)"
    />
    <AnswerFor
      v-if="answerFor"
      :key="answerFor"
      class="box"
      :asking="view.asking"
      :question="question"
      :student="answerFor"
      :name="nameOf(answerFor)"
      @close="answerFor = undefined"
    />
  </article>
</template>

<style scoped>
.box {
  margin: 8px 0;
  padding: 8px 12px;
  border-left: 2px solid var(--ink);
}
</style>
