<script setup lang="ts">
import { computed, ref } from 'vue'
import { useLive } from '../../live/lesson'
import { hour } from '../../ui/format'
import StudentEntries from '../entries/StudentEntries.vue'
import SidePanel from './SidePanel.vue'

/** More about one student in this lesson: asides, points covered, whether they can speak, their group. For the teacher's eyes only. */
const props = defineProps<{ student: string }>()
const emit = defineEmits<{ close: [] }>()
const { head, drawn, note } = useLive()
const row = computed(() => drawn.value?.rows.find((r) => r.id === props.student))
const group = computed(() => drawn.value?.groups.find((g) => g.members.includes(props.student)))
const text = ref('')
function aside() {
  if (!text.value.trim()) return
  note({ type: 'asideNoted', student: props.student, text: text.value.trim() })
  text.value = ''
}
</script>

<template>
  <SidePanel v-if="row" :title="row.shortName" @close="emit('close')">
    <div class="text-small">
      <p v-for="stretch in row.stretches" :key="stretch.from" class="border-b border-rule py-1">
        there {{ hour(stretch.from) }} to {{ stretch.to === null ? 'now' : hour(stretch.to) }}
      </p>
      <p class="border-b border-rule py-1">
        <template v-if="row.paused">cannot speak today: not drawn, speaking not counted. </template>
        <button class="quiet" @click="note({ type: 'speakingPaused', student, paused: !row.paused })">
          {{ row.paused ? 'can speak again' : 'cannot speak today' }}
        </button>
      </p>
      <template v-if="head?.plan.points.length">
        <p class="mt-2 font-semibold">Points covered</p>
        <p
          v-for="point in head.plan.points"
          :key="point.id"
          class="border-b border-rule py-1"
          :class="{ 'text-ink-soft': !row.points.includes(point.id) }"
        >
          <b v-if="row.points.includes(point.id)">covered: </b><template v-else>not yet: </template>{{ point.text }}
        </p>
      </template>
      <template v-if="drawn?.groups.length">
        <p class="mt-2 font-semibold">Group</p>
        <select
          class="field"
          aria-label="Group"
          :value="group?.id ?? ''"
          @change="note({ type: 'groupJoined', student, group: ($event.target as HTMLSelectElement).value || null })"
        >
          <option value="">in none</option>
          <option v-for="g in drawn.groups" :key="g.id" :value="g.id">{{ g.name }}</option>
        </select>
      </template>
      <p class="mt-2 font-semibold">Noted in this lesson</p>
      <StudentEntries v-if="head" :lesson="head.lessonId" :student="student" :position="head.position" />
      <p class="mt-2 font-semibold">Asides <i class="font-normal text-ink-soft">never scored, never shown</i></p>
      <p v-for="(said, i) in row.asides" :key="i" class="border-b border-rule py-1 italic">{{ said }}</p>
      <form @submit.prevent="aside">
        <input
          v-model="text"
          class="field"
          maxlength="2000"
          :aria-label="`Aside about ${row.shortName}`"
          placeholder="an aside…"
        />
      </form>
    </div>
  </SidePanel>
</template>
