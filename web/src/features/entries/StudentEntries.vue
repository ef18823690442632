<script setup lang="ts">
import { computed, watch } from 'vue'
import { second } from '../../ui/format'
import Notice from '../../ui/Notice.vue'
import AddEntry from './AddEntry.vue'
import { useStudentEntries } from './studentEntries'

/** A student's own list of entries in a lesson, whole: each is struck out or put back by itself, and what is missing is added with its time. */
const props = defineProps<{
  lesson: string
  student: string
  /** Entries that a score rests on: they stand in ink, the others faintly. */
  rests?: ReadonlySet<string>
  /** Entries that the student says are wrong. */
  doubted?: ReadonlySet<string>
  /** Changes whenever the lesson did. */
  position?: number
}>()
const { list, problem, note, strike, now, again } = useStudentEntries(props.lesson, props.student)
watch(() => props.position, again)

const locked = computed(() => list.value?.stage === 'settled' || list.value?.stage === 'planned')
const sources = { tapped: '', page: 'student page', feed: 'feed', file: 'file' }
const standsOut = (id: string) => !props.rests || props.rests.has(id)
</script>

<template>
  <Notice v-if="problem" tone="wrong" class="mb-1">{{ problem }}</Notice>
  <template v-if="list">
    <p v-if="list.settledBy" class="py-1 text-small">
      This lesson is settled.
      <button class="quiet font-semibold" @click="strike(list.settledBy)">Open it again</button> to put something right.
    </p>
    <p v-else-if="rests && list.stage === 'ended'" class="py-1 text-small text-ink-soft">
      Not settled: <RouterLink class="quiet" :to="`/lessons/${lesson}/settle`">settle it</RouterLink> when all is right.
    </p>
    <ol :aria-label="`Entries about ${list.student}`">
      <li
        v-for="e in list.entries"
        :key="e.id"
        class="entry"
        :class="{ struck: e.struck, faint: !standsOut(e.id), doubted: doubted?.has(e.id) }"
      >
        <span class="text-ink-soft">{{ second(e.at) }}</span>
        <span class="said" :title="e.by">{{ e.text }}</span>
        <i v-if="sources[e.source]" class="text-ink-soft">{{ sources[e.source] }}</i>
        <template v-if="!locked">
          <button
            v-if="!e.struck"
            class="quiet"
            :aria-label="`Strike out${e.ofSeveral ? ' for everybody' : ''}: ${e.text}`"
            @click="strike(e.id)"
          >
            {{ e.ofSeveral ? 'strike for all' : 'strike' }}
          </button>
          <button
            v-else-if="e.struckBy.length"
            class="quiet"
            :aria-label="`Put back: ${e.text}`"
            @click="strike(...e.struckBy)"
          >
            put back
          </button>
        </template>
      </li>
      <li v-if="!list.entries.length" class="py-1 text-small text-ink-soft">
        Nothing was noted of {{ list.student }}.
      </li>
    </ol>
    <AddEntry
      v-if="!locked"
      :student="student"
      :name="list.student"
      :nod-reasons="list.nodReasons"
      :near="list.plannedStart"
      :at="Math.min(now(), list.countedTo)"
      @add="note"
    />
  </template>
</template>

<style scoped>
.entry {
  display: flex;
  flex-wrap: wrap;
  gap: 0 10px;
  align-items: baseline;
  justify-content: flex-end;
  border-bottom: 1px solid var(--rule);
  padding: 2px 0;
  font-size: var(--text-small);
}
.said {
  /* Where there is no room beside the words, what can be done stands below them. */
  flex: 1 1 9rem;
  min-width: 0;
  overflow-wrap: anywhere;
}
.struck .said {
  text-decoration: line-through;
}
.doubted {
  box-shadow: -4px 0 0 var(--pen-speaking);
}
.faint {
  color: var(--ink-soft);
}
</style>
