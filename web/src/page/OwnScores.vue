<script setup lang="ts">
import { onMounted, onUnmounted, ref } from 'vue'
import type { Schemas } from '../api/client'
import { callPage } from './call'
import OwnScore from './OwnScore.vue'

/** A student's own scores, shown when they ask for them: others may see the screen. */
const props = defineProps<{ code: string }>()
const scores = ref<Schemas['PageScores']>()
const problem = ref('')
const asking = ref(false)

async function load() {
  asking.value = true
  const { data, detail } = await callPage<Schemas['PageScores']>(props.code, '/scores')
  asking.value = false
  scores.value = data
  problem.value = data ? '' : detail || 'That did not work. Try once more.'
}

// While they are looked at, what the teacher answers comes by itself; a line that is away for a moment takes nothing off the page.
async function again() {
  if (!scores.value || document.hidden) return
  const { data } = await callPage<Schemas['PageScores']>(props.code, '/scores')
  if (data && scores.value) scores.value = data
}
const everySeconds = 30
let timer = 0
onMounted(() => {
  timer = window.setInterval(again, everySeconds * 1000)
  document.addEventListener('visibilitychange', again)
})
onUnmounted(() => {
  clearInterval(timer)
  document.removeEventListener('visibilitychange', again)
})
</script>

<template>
  <section aria-labelledby="own-scores">
    <h2 id="own-scores">Your scores</h2>
    <p v-if="problem" class="wrong" role="alert">{{ problem }}</p>
    <p v-if="!scores" class="row">
      <button :disabled="asking" @click="load">{{ asking ? 'Looking…' : 'Show them to me' }}</button>
    </p>
    <template v-else>
      <p v-if="scores.term !== null" class="lead" role="status">
        So far you have {{ scores.term.toFixed(scores.places) }} of 100<template v-if="scores.band"
          >: {{ scores.band }}</template
        >.
      </p>
      <p v-else-if="scores.lessons.some((l) => l.minutes === null)" class="soft" role="status">
        {{ scores.scored }} of the {{ scores.needed }} lessons that it takes for a score of the term.
      </p>
      <p v-if="!scores.lessons.length" class="soft">No lesson is done yet. When one is, it stands here.</p>
      <OwnScore
        v-for="l in scores.lessons"
        :key="l.lesson"
        :code="code"
        :score="l"
        :places="scores.places"
        @told="(next) => (scores = next)"
      />
      <p class="row"><button class="quiet" @click="scores = undefined">Put them away</button></p>
    </template>
  </section>
</template>
