<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { api, ask, type Schemas } from '../../api/client'
import { useLive } from '../../live/lesson'
import { entryId } from '../../live/outbox'
import { count, shortDay } from '../../ui/format'

/** Splits those who are here: at random by the wishes of the plan, into empty groups to fill by hand, or as in an earlier lesson. */
const props = defineProps<{ id: string; here: readonly string[]; running: boolean }>()
const { drawn, note, serverTime } = useLive()
type Group = Schemas['StudentGroup']

const by = ref<'count' | 'size'>('count')
const number = ref(4)
const told = ref('')
const problem = ref('')
const asking = ref(false)
const groups = computed(() => drawn.value?.groups ?? [])
const nameOf = (student: string) => drawn.value?.rows.find((r) => r.id === student)?.shortName ?? 'somebody'
const named = (members: readonly (readonly string[])[]): Group[] =>
  members.map((m, i) => ({ id: entryId(serverTime() + i), name: `Group ${i + 1}`, members: [...m] }))

async function atRandom() {
  asking.value = true
  problem.value = ''
  try {
    const found = await ask(
      api.POST('/api/lessons/{id}/groups/propose', {
        params: { path: { id: props.id } },
        body: {
          students: [...props.here],
          count: by.value === 'count' ? number.value : null,
          size: by.value === 'size' ? number.value : null,
          seed: Math.floor(Math.random() * 2 ** 31),
        },
      }),
    )
    note({ type: 'groupsMade', groups: named(found.groups) })
    const pairs = (list: string[][], what: string) =>
      list.length ? `${list.map((p) => p.map(nameOf).join(' and ')).join('; ')} ${what}. ` : ''
    told.value =
      pairs(found.split, 'could not be kept together') +
      pairs(found.joined, 'could not be kept apart') +
      (found.repeats
        ? `${count(found.repeats, 'pair')} worked together before.`
        : 'Nobody works with the same people as in earlier lessons.')
  } catch (failure) {
    problem.value = (failure as Error).message
  } finally {
    asking.value = false
  }
}
const byHand = () =>
  note({
    type: 'groupsMade',
    groups: named(
      Array.from(
        { length: Math.max(1, by.value === 'count' ? number.value : Math.round(props.here.length / number.value)) },
        () => [],
      ),
    ),
  })

const { data: before } = useQuery({
  queryKey: ['groups-before', props.id],
  queryFn: () => ask(api.GET('/api/lessons/{id}/groups/before', { params: { path: { id: props.id } } })),
})
/** The same groups as then, with those who are here now. */
function again(then: Schemas['GroupsBefore']) {
  const kept = then.groups.map((g, i) => ({
    id: entryId(serverTime() + i),
    name: g.name,
    members: g.members.filter((m) => props.here.includes(m)),
  }))
  note({ type: 'groupsMade', groups: kept.filter((g) => g.members.length) })
}
</script>

<template>
  <div>
    <form v-if="running" class="make" @submit.prevent="atRandom">
      <label><input v-model="by" type="radio" value="count" /> so many groups</label>
      <label><input v-model="by" type="radio" value="size" /> groups of</label>
      <input v-model.number="number" class="field number" type="number" min="1" max="60" aria-label="How many" />
      <button class="press" :disabled="asking || !here.length">
        {{ asking ? 'Making…' : groups.length ? 'Make anew at random' : 'Make at random' }}
      </button>
      <button type="button" class="press" @click="byHand">Empty, to fill by hand</button>
      <template v-if="!groups.length">
        <button v-for="b in before?.slice(0, 3)" :key="b.lessonId + b.at" type="button" class="press" @click="again(b)">
          {{ b.lessonId === id ? 'As before' : `As on ${shortDay(b.at)}` }}
        </button>
      </template>
    </form>
    <p v-if="problem" role="alert" class="py-1 font-semibold">{{ problem }}</p>
    <p v-else-if="told" role="status" class="py-1 text-small text-ink-soft">{{ told }}</p>
    <p v-if="!groups.length" class="py-4 text-ink-soft">
      {{
        here.length
          ? `${count(here.length, 'student')} here to be split. Wishes of the plan are kept where they can be.`
          : 'Nobody is here yet.'
      }}
    </p>
  </div>
</template>

<style scoped>
.make {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 4px 16px;
  padding: 6px 0;
}
.number {
  width: 4rem;
}
</style>
