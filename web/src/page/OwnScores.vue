<script setup lang="ts">
import { ref } from 'vue'
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
