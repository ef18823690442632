<script setup lang="ts">
import { provide, watchEffect } from 'vue'
import { liveLesson, useLesson } from '../../live/lesson'
import Notice from '../../ui/Notice.vue'
import EndDialog from './EndDialog.vue'
import Foot from './Foot.vue'
import { useKeyboard } from './keyboard'
import LessonHead from './LessonHead.vue'
import MainSheet from './MainSheet.vue'
import NotRunning from './NotRunning.vue'
import SideColumn from './SideColumn.vue'
import SignedOutBar from './SignedOutBar.vue'
import { provideTeaching } from './teaching'

/** A lesson that is taught now, or has just been. */
const props = defineProps<{ id: string }>()
const lesson = useLesson(props.id)
provide(liveLesson, lesson)
const { head, drawn, problem, now, waiting, note, strike } = lesson
const teaching = provideTeaching(props.id, lesson)
const { rows, here, running, ending, said, keyOf, nextStage, extend, run } = teaching
useKeyboard(teaching)

watchEffect(() => {
  if (head.value) document.title = `Lesson ${head.value.number}, ${head.value.className} · Polite Tally`
})

function endLesson() {
  ending.value = false
  note({ type: 'lessonEnded' })
}
</script>

<template>
  <main v-if="!head || !drawn" class="p-8">
    <Notice v-if="problem" tone="wrong">{{ problem }}</Notice>
    <p v-else class="text-ink-soft">Opening the lesson…</p>
    <p class="mt-4"><RouterLink class="quiet" to="/">Back to the desk</RouterLink></p>
  </main>

  <div v-else class="live" :class="{ dense: rows.length > 28 }" :style="{ '--rows': rows.length }">
    <LessonHead
      :head="head"
      :stage="drawn.stage"
      :timer="running ? drawn.timers.find((t) => t.group === null) : undefined"
      :now="now"
      :here="here"
      :of="rows.length"
      :next-key="keyOf('nextStage')"
      @end="ending = true"
      @next="nextStage"
      @extend="extend"
    />
    <SignedOutBar />
    <SideColumn :id="id" :head="head" />
    <MainSheet :id="id" :head="head" />
    <Foot :id="id" />
    <p class="sr-only" aria-live="polite">{{ said }}</p>

    <EndDialog
      :open="ending"
      :number="head.number"
      :waiting="waiting"
      @end="endLesson"
      @close="ending = false"
      @run="(name) => run[name]()"
    />
    <NotRunning
      v-if="!running"
      :id="id"
      :head="head"
      @start="note({ type: 'lessonStarted' })"
      @resume="head.endedBy && strike(head.endedBy)"
    />
  </div>
</template>

<style scoped>
.live {
  /* Of the rows, too. */
  --columns: 236px 1fr 68px 74px 54px 48px 44px;
  --head: 58px;
  --heading: 28px;
  --foot: 36px;
  --row: clamp(24px, calc((100dvh - var(--head) - var(--heading) - var(--foot)) / max(1, var(--rows)) - 0.1px), 40px);
  display: grid;
  grid-template: var(--head) minmax(0, 1fr) auto var(--foot) / 250px minmax(0, 1fr);
  grid-template-areas: 'head head' 'side sheet' 'side note' 'foot foot';
  height: 100dvh;
}
/* Signed out: what says it takes its place above the sheet, and covers nothing. */
.live:has(> .signed-out) {
  padding-top: 92px;
}
.live > :deep(header) {
  grid-area: head;
}
/* Thirty students fit in 800 px: what stands above and below them gives way. */
@media (min-width: 901px) and (max-height: 850px) {
  .dense {
    --head: 38px;
    --heading: 18px;
    --heading-size: 0.75rem;
    --heading-line: 1.2;
    --heading-gap: 0;
    --foot: 24px;
    --foot-line: 1.5px;
  }
}
/* Half a window: the sheet stays beside the line. */
@media (max-width: 900px) {
  .live {
    --columns: minmax(0, 1fr) 82px 50px 54px 34px 34px;
    --row: clamp(24px, calc((100dvh - 104px - 28px - 76px) / max(1, var(--rows))), 34px);
    grid-template-rows: auto minmax(0, 1fr) auto auto;
    grid-template-columns: 204px minmax(0, 1fr);
  }
}
/* A narrow one: whose turn it is, then the sheet, and what waits below it. */
@media (max-width: 560px) {
  .live {
    display: flex;
    flex-direction: column;
    height: auto;
    min-height: 100dvh;
    --row: 34px;
    /* No room of its own for what stands beside a name: it lies over the end of it. */
    --columns: minmax(0, 1fr) 0 50px 56px 40px 34px;
  }
}
</style>
