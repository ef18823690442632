<script setup lang="ts">
import { computed } from 'vue'
import { useLive } from '../../live/lesson'
import type { Schemas } from '../../api/client'
import type { Act } from '../../live/outbox'
import { hour } from '../../ui/format'
import SidePanel from './SidePanel.vue'
import StudentFinder from './StudentFinder.vue'

/** Names in the meeting that nobody has been matched to: this student, not a student, or ask later, each by one press. */
const emit = defineEmits<{ close: [] }>()
const { drawn, note } = useLive()
const rows = computed(() => drawn.value?.rows ?? [])
const nameOf = (id: string) => rows.value.find((r) => r.id === id)?.shortName ?? 'a student'
/** Callers whose name leaves no doubt: one press lets in all of them. */
const sure = computed(() => drawn.value?.callers.filter((c) => c.sure) ?? [])
const admit = (session: string, student: string | null): Act => ({ type: 'pageAdmitted', session, student })
const letIn = () => note(...sure.value.map((c) => admit(c.session, c.sure)))
const match = ({ name, beside }: Schemas['AtTheDoor'], student: string | null) =>
  note({ type: 'nameMatched', name, beside, student })
</script>

<template>
  <SidePanel title="Names at the door" @close="emit('close')">
    <p v-if="sure.length > 1" class="pt-2 text-small">
      <button class="press" @click="letIn">Let in all {{ sure.length }} who are sure</button>
    </p>
    <div v-for="caller in drawn?.callers" :key="caller.session" class="border-b border-rule py-2">
      <p class="flex items-baseline justify-between gap-2">
        <bdi class="truncate font-bold" :title="caller.name">{{ caller.name }}</bdi>
        <span class="shrink-0 text-small text-ink-soft">student page {{ hour(caller.at) }}</span>
      </p>
      <div class="flex flex-wrap gap-x-3 text-small">
        <button
          v-for="student in caller.proposals.slice(0, 3)"
          :key="student"
          class="quiet"
          :class="{ 'font-semibold': student === caller.sure }"
          @click="note(admit(caller.session, student))"
        >
          {{ nameOf(student) }}
        </button>
        <button class="quiet" @click="note(admit(caller.session, null))">turn away</button>
      </div>
      <StudentFinder
        :label="`Somebody else is “${caller.name}”`"
        @choose="(student) => note(admit(caller.session, student))"
      />
    </div>
    <p v-if="!drawn?.door.length && !drawn?.callers.length" class="py-2 text-ink-soft">
      Everybody in the meeting is known. Who knocks next waits here.
    </p>
    <div v-for="one in drawn?.door" :key="one.name + one.beside" class="border-b border-rule py-2">
      <p class="flex items-baseline justify-between gap-2">
        <bdi class="truncate font-bold" :title="one.name">{{ one.name }}</bdi>
        <span v-if="one.beside" class="min-w-0 flex-1 truncate text-small text-ink-soft">{{ one.beside }}</span>
        <span class="shrink-0 text-small text-ink-soft">
          <template v-if="one.first === null">{{ one.later ? 'later' : 'seen online' }}</template>
          <template v-else
            >{{ one.later ? 'later' : one.inMeeting ? 'in since' : 'seen' }} {{ hour(one.first) }}</template
          >
        </span>
      </p>
      <div class="flex flex-wrap gap-x-3 text-small">
        <button
          v-for="student in one.proposals.slice(0, 3)"
          :key="student"
          class="quiet font-semibold"
          @click="match(one, student)"
        >
          {{ nameOf(student) }}
        </button>
        <i v-if="one.somebodyOf" class="text-ink-soft">probably somebody of {{ nameOf(one.somebodyOf) }}</i>
        <button class="quiet" :class="{ 'font-semibold': one.somebodyOf }" @click="match(one, null)">
          not a student
        </button>
        <button
          v-if="!one.later"
          class="quiet"
          @click="note({ type: 'askedLater', name: one.name, beside: one.beside })"
        >
          later
        </button>
      </div>
      <StudentFinder :label="`Somebody else is “${one.name}”`" @choose="(student) => match(one, student)" />
    </div>
  </SidePanel>
</template>
