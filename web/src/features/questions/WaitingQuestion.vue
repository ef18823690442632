<script setup lang="ts">
import { computed, nextTick, ref, useTemplateRef, watch } from 'vue'
import type { Schemas } from '../../api/client'
import KeyCap from '../../ui/KeyCap.vue'
import type { Question } from '../plans/plan'
import QuestionEditor from '../plans/QuestionEditor.vue'
import { blanksOf, filled, goesTo } from './asking'
import { wordsFor } from './blanks'

/** A question that waits: as it will be asked, what it still lacks, its blanks, to whom it goes, and the press that opens it. */
const props = defineProps<{
  /** Why it cannot be opened, in the server's words. */
  lack?: string
  groups: readonly Schemas['StudentGroup'][]
  /** The groups that have had it. */
  had: readonly (string | null)[]
  running: boolean
  openKey: string
}>()
const question = defineModel<Question>({ required: true })
const emit = defineEmits<{ open: [question: Question, to: (string | null)[]] }>()

const words = computed(() => wordsFor(question.value.id))
const blanks = computed(() => blanksOf(question.value))
const ready = computed(() => filled(question.value, words.value))
const left = computed(() => props.groups.filter((g) => !props.had.includes(g.id)))
/** What was prepared for groups asks for which; everything else goes to the class unless something else is chosen. */
const to = ref(question.value.audience === 'group' ? 'ask' : 'class')
const editing = ref(false)
const fields = useTemplateRef<HTMLInputElement[]>('fields')
const chooser = useTemplateRef<HTMLSelectElement>('chooser')
watch(
  () => question.value.id,
  () => {
    to.value = question.value.audience === 'group' ? 'ask' : 'class'
    editing.value = false
  },
)
const why = computed(() => (props.lack ? `It cannot be opened yet: ${props.lack}.` : ''))

/** Opens it; blanks come first, and to whom it goes. */
async function open() {
  if (!props.running || props.lack) return
  await nextTick()
  if (blanksOf(ready.value).length) return fields.value?.find((f) => !f.value.trim())?.focus()
  if (to.value === 'ask') return chooser.value?.focus()
  emit('open', JSON.parse(JSON.stringify(ready.value)) as Question, goesTo(to.value, left.value))
}
defineExpose({ open })
</script>

<template>
  <p class="text-lead leading-snug font-semibold">{{ ready.text || 'A question without words' }}</p>
  <ol v-if="!editing" class="my-2">
    <li v-for="(o, i) in ready.options" :key="o.id" class="flex flex-wrap items-center gap-3 border-b border-rule py-1">
      <img
        v-if="o.picture"
        :src="`/api/pictures/${o.picture}`"
        :alt="o.alternativeText"
        class="h-14 border border-rule"
      />
      <span>{{ o.text || o.alternativeText }}<i v-if="o.right" class="text-small text-ink-soft"> right</i></span>
      <input
        v-if="o.picture && !question.options[i]!.alternativeText.trim()"
        v-model.lazy="question.options[i]!.alternativeText"
        class="field min-w-0 flex-1"
        maxlength="200"
        placeholder="what it shows, for those who cannot see it"
        :aria-label="`What picture ${i + 1} shows`"
      />
    </li>
  </ol>
  <label v-for="name in blanks" :key="name" data-blank class="mt-1 block text-small text-ink-soft">
    {{ name }}
    <input
      ref="fields"
      v-model="words[name]"
      class="field text-ink"
      maxlength="120"
      @keydown.enter.prevent.stop="open"
    />
  </label>
  <p class="my-3 flex flex-wrap items-baseline gap-x-5 gap-y-2">
    <button
      v-if="running"
      class="press-first"
      :disabled="!!lack"
      :aria-describedby="lack ? 'why-not' : undefined"
      @click="open"
    >
      Open it <KeyCap :k="openKey" />
    </button>
    <label v-if="groups.length || question.audience === 'group'" class="flex items-baseline gap-2 text-small"
      >to
      <select ref="chooser" v-model="to" class="field" aria-label="To whom it goes">
        <option v-if="question.audience === 'group'" value="ask" disabled>which group?</option>
        <option v-for="g in left" :key="g.id" :value="g.id">{{ g.name }}</option>
        <option v-if="left.length > 1" value="each">each group</option>
        <option value="class">the whole class</option>
      </select>
    </label>
    <button class="quiet" :aria-expanded="editing" @click="editing = !editing">
      {{ editing ? 'done' : 'edit it' }}
    </button>
    <i v-if="why" id="why-not" class="basis-full text-small">{{ why }}</i>
    <i v-else-if="question.audience === 'group' && !groups.length" class="basis-full text-small">
      It was prepared for groups, and there are none now.
    </i>
  </p>
  <QuestionEditor v-if="editing" v-model="question" />
</template>
