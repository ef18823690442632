<script setup lang="ts">
import { ref } from 'vue'
import type { Schemas } from '../api/client'
import { callPage } from './call'

/** A student's own score of one lesson: what it is made of, what was noted, and a way to say that something is wrong. */
const props = defineProps<{ code: string; score: Schemas['PageScore']; places: number }>()
const emit = defineEmits<{ told: [scores: Schemas['PageScores']] }>()

const names: Record<Schemas['Strand'], string> = {
  attendance: 'Being there',
  speaking: 'Speaking',
  questions: 'Questions',
  chat: 'Chat',
  groupWork: 'Group work',
  rubric: 'What your teacher looks for',
}
const day = (at: number) => new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'long' }).format(at)
const hour = (at: number) => new Intl.DateTimeFormat('en-GB', { hour: '2-digit', minute: '2-digit' }).format(at)

const noted = ref<Schemas['PageNoted'][]>()
const problem = ref('')
async function open(event: Event) {
  if (!(event.target as HTMLDetailsElement).open || noted.value) return
  const { data, detail } = await callPage<Schemas['PageNoted'][]>(props.code, `/scores/${props.score.lesson}`)
  noted.value = data
  problem.value = data ? '' : detail
}

/** What is said to be wrong: an entry, or null for the whole lesson. */
const about = ref<Schemas['PageNoted'] | null>()
const text = ref('')
const sending = ref(false)
// One id for one thing that is said, so that sending it once more says it once.
let id = ''
function begin(entry: Schemas['PageNoted'] | null) {
  about.value = entry
  id = crypto.randomUUID()
}
async function send() {
  sending.value = true
  const body = { id, entry: about.value?.id ?? null, text: text.value.trim() }
  const { data, detail } = await callPage<Schemas['PageScores']>(
    props.code,
    `/scores/${props.score.lesson}/objections`,
    body,
  )
  sending.value = false
  problem.value = data ? '' : detail || 'That did not go out. Try once more.'
  if (!data) return
  about.value = undefined
  text.value = ''
  emit('told', data)
}
</script>

<template>
  <details class="own" @toggle="open">
    <summary>
      <span class="grow"
        ><b>{{ score.title }}</b> <span class="soft">{{ day(score.plannedStart) }}</span></span
      >
      <b>{{ score.minutes !== null ? `${score.minutes} min` : (score.score?.toFixed(places) ?? 'does not count') }}</b>
    </summary>
    <p v-if="score.minutes !== null">You were there for {{ score.minutes }} min.</p>
    <div v-for="(part, i) in score.parts" :key="i" class="part">
      <template v-if="part.strand">
        <b>{{ names[part.strand] }}</b>
        <span class="bar" aria-hidden="true"
          ><i v-if="part.share !== null" :style="{ width: `${part.share * 100}%` }"
        /></span>
        <span class="share">{{ part.share === null ? 'left out' : `${Math.round(part.share * 100)} %` }}</span>
      </template>
      <span class="said">{{ part.said }}</span>
    </div>

    <template v-if="noted?.length">
      <h3>What was noted</h3>
      <p v-for="n in noted" :key="n.id" class="noted">
        <span class="soft">{{ hour(n.at) }}</span>
        <bdi class="grow">{{ n.text }}</bdi>
        <button class="quiet" @click="begin(n)">I think this is wrong</button>
      </p>
    </template>
    <p v-for="o in score.objections" :key="o.id" class="told">
      You said<template v-if="o.about"> of “{{ o.about }}”</template>: <bdi>{{ o.text }}</bdi>
      <b v-if="o.answer" class="said"
        >Your teacher answered: <bdi>{{ o.answer }}</bdi></b
      >
      <i v-else class="said soft">Your teacher has it and has not answered yet.</i>
    </p>
    <p v-if="problem" class="wrong" role="alert">{{ problem }}</p>
    <form v-if="about !== undefined" @submit.prevent="send">
      <label
        >{{ about ? `What is wrong with “${about.text}”?` : 'What is missing or wrong?' }}
        <textarea v-model="text" rows="2" maxlength="500" required />
      </label>
      <p class="row">
        <button class="first" :disabled="sending || !text.trim()">{{ sending ? 'It goes out…' : 'Tell them' }}</button>
        <button type="button" class="quiet" @click="about = undefined">leave it</button>
      </p>
    </form>
    <p v-else class="row"><button @click="begin(null)">Something is missing or wrong</button></p>
  </details>
</template>

<style scoped>
.own {
  border-top: 1px solid var(--rule);
}
summary {
  display: flex;
  gap: 12px;
  align-items: center;
  min-height: 44px;
  cursor: pointer;
}
summary::before {
  content: '+';
  width: 0.8em;
  font-weight: 600;
}
[open] > summary::before {
  content: '–';
}
.part {
  display: grid;
  grid-template-columns: 11em minmax(3em, 8em) 4.4em;
  gap: 0 10px;
  align-items: center;
  border-top: 1px solid var(--rule);
  padding: 4px 0;
}
.said {
  display: block;
  grid-column: 1 / -1;
}
.share {
  text-align: end;
}
.bar {
  height: 10px;
  border: 1px solid var(--ink-soft);
}
.bar i {
  display: block;
  height: 100%;
  background: var(--pen-speaking);
}
h3 {
  margin: 14px 0 0;
  font-size: 1rem;
}
.noted {
  display: flex;
  flex-wrap: wrap;
  gap: 0 10px;
  align-items: baseline;
  margin: 0;
  border-top: 1px solid var(--rule);
}
.noted bdi {
  flex: 1 1 14rem;
}
.noted button {
  margin-left: auto;
}
.told {
  border-left: 4px solid var(--pen-speaking);
  padding-left: 10px;
}
@media (max-width: 420px) {
  .part {
    grid-template-columns: 1fr 4em 4.4em;
  }
}
</style>
