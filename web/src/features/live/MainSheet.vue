<script setup lang="ts">
import QuestionsSheet from '../questions/QuestionsSheet.vue'
import type { Head } from '../../live/drawn'
import GroupsSheet from './GroupsSheet.vue'
import RosterSheet from './RosterSheet.vue'
import TeacherChat from './TeacherChat.vue'
import { useTeaching, type BigSheet } from './teaching'

/** The sheet with a row for each student, or what stands in its place. */
defineProps<{ id: string; head: Head }>()
const { big, bigSheet, chosen, running, keyOf } = useTeaching()
const close = () => (big.value = undefined)
const keep = (sheet: unknown) => (bigSheet.value = (sheet as BigSheet | null) ?? undefined)
</script>

<template>
  <main class="sheet" :class="{ whole: big }">
    <TeacherChat v-if="big === 'chat'" :id="id" :ref="keep" @close="close" />
    <QuestionsSheet
      v-else-if="big === 'questions'"
      :id="id"
      :ref="keep"
      :open-key="keyOf('openQuestion')"
      @close="close"
    />
    <GroupsSheet
      v-else-if="big === 'groups'"
      :id="id"
      :ref="keep"
      :chosen="chosen"
      :running="running"
      @choose="(students) => (chosen = students)"
      @close="close"
    />
    <RosterSheet v-else :head="head" />
  </main>
</template>

<style scoped>
.sheet {
  grid-area: sheet;
  overflow: hidden auto;
  padding: 0 16px;
}
.sheet.whole {
  padding-top: 8px;
}
@media (max-width: 900px) {
  .sheet {
    padding: 0 10px;
  }
}
@media (max-width: 560px) {
  .sheet {
    order: 1;
    overflow: visible;
  }
}
</style>
