<script setup lang="ts">
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { api, ask, type Schemas } from '../../api/client'
import { hour } from '../../ui/format'
import Notice from '../../ui/Notice.vue'

/** How it stands with the word ahead of a lesson, and how it reads for one student. */
const props = defineProps<{ lesson: Schemas['LessonLine']; students: readonly Schemas['Person'][] }>()
const queries = useQueryClient()
const student = ref(props.students[0]?.id)
const shown = ref(false)
const problem = ref<string>()
const busy = ref(false)
const word = useQuery({
  queryKey: ['word', props.lesson.id, student],
  queryFn: () =>
    ask(
      api.GET('/api/lessons/{id}/word', {
        params: { path: { id: props.lesson.id }, query: { student: student.value } },
      }),
    ),
  refetchInterval: 10_000,
})
const stands = computed(() => {
  const w = word.data.value
  if (!w) return ''
  if (w.stands === 'off') return 'Nothing goes out by itself.'
  if (w.stands === 'waits') return `Goes out at ${hour(w.dueAt)}.`
  if (w.stands === 'going') return 'Going out now…'
  return `${w.said}${w.at ? ` At ${hour(w.at)}.` : ''}`
})

const missed = computed(() =>
  word.data.value?.stands === 'going' ? [] : (word.data.value?.students.filter((s) => s.state !== 'sent') ?? []),
)

async function send() {
  problem.value = undefined
  busy.value = true
  try {
    await ask(api.POST('/api/lessons/{id}/word', { params: { path: { id: props.lesson.id } } }))
  } catch (failure) {
    problem.value = (failure as Error).message
  } finally {
    busy.value = false
    await queries.invalidateQueries({ queryKey: ['word', props.lesson.id] })
  }
}
</script>

<template>
  <section aria-labelledby="word-ahead">
    <h2 id="word-ahead" class="rule-head">Word ahead</h2>
    <p class="mt-1">
      {{ stands }}
      <RouterLink
        v-if="word.data.value?.stands === 'off'"
        class="quiet"
        :to="{ path: `/classes/${lesson.classId}/rules`, hash: '#word' }"
        >Let it go out</RouterLink
      >
    </p>
    <Notice v-if="problem" tone="wrong">{{ problem }}</Notice>
    <ul v-if="missed.length">
      <li v-for="line in missed" :key="line.student" class="border-b border-rule py-0.5">
        {{ students.find((s) => s.id === line.student)?.fullName ?? line.address }}
        <span class="text-ink-soft">{{ line.why || 'perhaps it went, perhaps not' }}</span>
      </li>
    </ul>
    <p class="mt-1 flex flex-wrap gap-x-5">
      <button class="quiet" :aria-expanded="shown" @click="shown = !shown">How it reads</button>
      <button class="quiet" :disabled="busy" @click="send">
        {{
          busy ? 'Sending…' : word.data.value?.stands === 'sent' ? 'Send to those who have not had it' : 'Send it now'
        }}
      </button>
    </p>
    <div v-if="shown && word.data.value" class="mt-2">
      <label class="text-small text-ink-soft"
        >For<select v-model="student" class="field text-base text-ink">
          <option v-for="s in students" :key="s.id" :value="s.id">{{ s.fullName }}</option>
        </select></label
      >
      <p class="mt-2 text-small text-ink-soft">{{ word.data.value.to || 'no e-mail address' }}</p>
      <p class="font-semibold">{{ word.data.value.subject }}</p>
      <p class="whitespace-pre-line">{{ word.data.value.text }}</p>
      <p v-if="word.data.value.standIn" class="mt-1 text-small text-ink-soft">
        Without a mail server it goes into the <RouterLink class="quiet" to="/outbox">outbox</RouterLink>.
      </p>
    </div>
  </section>
</template>
