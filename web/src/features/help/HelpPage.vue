<script setup lang="ts">
import { computed, onBeforeUnmount, onMounted, ref } from 'vue'
import { useHelp } from '../../live/help'
import KeyCap from '../../ui/KeyCap.vue'
import { studentKey } from '../../live/acts'
import ChatSheet from '../live/ChatSheet.vue'
import HandLine from '../live/HandLine.vue'

/** The page of a helper for one lesson: the hand line, the chat, or both, as far as the link goes. Nothing else of the lesson is here. */
const key = location.hash.slice(1)
const { view, hands, messages, refused, waiting, away, closed, now, note, dismiss } = useHelp(key)
const people = computed(() => view.value?.people ?? [])
const nameOf = (id: string) => people.value.find((p) => p.id === id)?.shortName ?? ''
const isUp = (student: string) => hands.value.some((h) => h.student === student)
const sheet = ref<{ onKey: (event: KeyboardEvent) => boolean }>()
const running = computed(() => view.value?.stage === 'live')

function hand(student: string) {
  note(isUp(student) ? { type: 'handEnded', student, end: 'withdrawn' } : { type: 'handRaised', student, ready: false })
}
const setDown = (...students: string[]) =>
  note(...students.map((student) => ({ type: 'handEnded' as const, student, end: 'setDown' as const })))

function onKey(event: KeyboardEvent) {
  const target = event.target as HTMLElement
  if (event.ctrlKey || event.metaKey || event.altKey || target.closest('input, textarea')) return
  if ((event.key === 'Enter' || event.key === ' ') && target.closest('button, a')) return
  const letter = view.value?.handLine ? studentKey(event) : undefined
  const person = people.value.find((p) => p.key === letter)
  if (person && running.value) hand(person.id)
  else if (!sheet.value?.onKey(event)) return
  event.preventDefault()
}
onMounted(() => window.addEventListener('keydown', onKey))
onBeforeUnmount(() => window.removeEventListener('keydown', onKey))
</script>

<template>
  <main v-if="closed || !key" class="p-8">
    <h1 class="text-head font-bold">Helping with a lesson</h1>
    <p class="mt-2" role="alert">
      {{ closed || 'This link is not whole. Ask for it again and open it as it was sent.' }}
    </p>
  </main>
  <main v-else-if="!view" class="p-8 text-ink-soft">Opening…</main>
  <main v-else class="help">
    <header class="flex flex-wrap items-baseline justify-between gap-x-6 border-b-2 border-ink pb-1">
      <h1 class="text-lead font-bold">{{ view.className }}: {{ view.title }}</h1>
      <p class="text-small text-ink-soft">
        You help as <b class="text-ink">{{ view.helper }}</b>{{ running ? '' : ', the lesson has not begun' }}.
        <span role="status">{{ waiting ? `${waiting} in pencil` : away ? 'no connection' : 'all stored' }}</span>
      </p>
    </header>
    <div v-for="r in refused" :key="r.id" role="alert" class="border-b border-rule py-1 text-small">
      <b>Not stored.</b> {{ r.refused }} <button class="quiet" @click="dismiss(r.id)">Put away</button>
    </div>
    <div class="parts" :class="{ both: view.sweep && view.handLine }">
      <section v-if="view.handLine" class="line">
        <p v-if="view.turn" class="mb-2">
          <span class="marked">{{ nameOf(view.turn.student) }}</span> has the word.
        </p>
        <HandLine
          :hands="hands"
          :name-of="nameOf"
          :now="now"
          :can-call="false"
          :is-gone="(hand) => hand.gone"
          next-key="Enter"
        />
        <p v-if="hands.length" class="text-right text-small">
          <button class="quiet" @click="setDown(...hands.filter((h) => !h.stranger).map((h) => h.student))">
            set all down
          </button>
        </p>
        <h2 class="rule-head mt-4">Raise or take down</h2>
        <ul class="people">
          <li v-for="p in people" :key="p.id">
            <button class="person" :aria-pressed="isUp(p.id)" :disabled="!running" @click="hand(p.id)">
              <KeyCap class="text-ink-soft" :k="p.key" /> <b>{{ p.called }}</b> {{ p.rest }}
            </button>
          </li>
        </ul>
      </section>
      <ChatSheet v-if="view.sweep" ref="sheet" :messages="messages" :can-note="running" plain @note="note" />
    </div>
  </main>
</template>

<style scoped>
.help {
  padding: 14px 20px;
  min-height: 100dvh;
}
.parts {
  padding-top: 14px;
}
.both {
  display: grid;
  grid-template-columns: 270px minmax(0, 1fr);
  gap: 32px;
}
.people {
  columns: 2 11rem;
}
.both .people {
  columns: 1;
}
.person {
  display: block;
  width: 100%;
  min-height: 26px;
  text-align: start;
  border-bottom: 1px solid var(--rule);
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.person[aria-pressed='true'] {
  box-shadow: inset 3px 0 0 var(--pen-speaking);
  padding-left: 8px;
}
@media (max-width: 900px) {
  .both {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
