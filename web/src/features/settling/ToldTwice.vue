<script setup lang="ts">
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { ref, watch } from 'vue'
import { api, ask, type Schemas } from '../../api/client'
import { count, second } from '../../ui/format'

/** What several sources tell and counts once, to be parted; and what may be one, to be joined. */
const props = defineProps<{ lesson: string; locked: boolean; position: unknown }>()
const emit = defineEmits<{ compare: [entry: string, other: string, areOne: boolean, text: string] }>()

const opened = ref(false)
const queries = useQueryClient()
const queryKey = ['settling', props.lesson, 'told']
const told = useQuery({
  queryKey,
  queryFn: () => ask(api.GET('/api/lessons/{id}/told', { params: { path: { id: props.lesson } } })),
  enabled: opened,
})
watch(
  () => props.position,
  () => opened.value && void queries.invalidateQueries({ queryKey }),
)

const by = ({ source, by: file }: Schemas['Telling']) =>
  source === 'file' ? file : source === 'page' ? 'student page' : source === 'feed' ? 'meeting' : 'you'
const groups = [
  { of: 'once', areOne: false, word: 'they are two', said: 'two entries parted' },
  { of: 'near', areOne: true, word: 'they are one', said: 'two entries joined' },
] as const
</script>

<template>
  <details class="mt-3" @toggle="opened = ($event.target as HTMLDetailsElement).open">
    <summary class="quiet inline-block">what several sources tell</summary>
    <p v-if="told.isLoading.value" role="status" class="mt-1">Looking…</p>
    <p v-else-if="told.error.value" role="alert">{{ told.error.value.message }}</p>
    <template v-else-if="told.data.value">
      <template v-for="g in groups" :key="g.of">
        <h3 class="mt-3 font-semibold">
          {{
            g.of === 'once'
              ? `${count(told.data.value.once.length, 'act')} told more than once, counted once`
              : `${count(told.data.value.near.length, 'pair')} too far apart to be taken for one`
          }}
        </h3>
        <ul>
          <li v-for="act in told.data.value[g.of]" :key="act.counts.entry" class="act">
            <b>{{ act.who }}</b>
            <span>{{ second(act.counts.at) }} {{ by(act.counts) }}: {{ act.counts.text }}</span>
            <span>
              <span v-for="other in act.others" :key="other.entry" class="block">
                <span class="text-ink-soft">{{ second(other.at) }} {{ by(other) }}: {{ other.text }}</span>
                <button
                  v-if="!locked"
                  class="quiet ml-3"
                  :aria-label="`${g.word}: ${act.who} ${second(act.counts.at)} and ${second(other.at)}`"
                  @click="emit('compare', act.counts.entry, other.entry, g.areOne, g.said)"
                >
                  {{ g.word }}
                </button>
              </span>
            </span>
          </li>
        </ul>
      </template>
      <p v-if="told.data.value.more" class="text-small text-ink-soft">And {{ told.data.value.more }} more.</p>
    </template>
  </details>
</template>

<style scoped>
.act {
  display: grid;
  grid-template-columns: minmax(7rem, 9rem) minmax(14rem, 1fr) minmax(16rem, 1.4fr);
  gap: 2px 18px;
  border-bottom: 1px solid var(--rule);
  padding: 3px 0;
  font-size: var(--text-small);
}
@media (max-width: 60rem) {
  .act {
    grid-template-columns: 1fr;
  }
}
</style>
