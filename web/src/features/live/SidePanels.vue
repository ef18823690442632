<script setup lang="ts">
import BoardPanel from './BoardPanel.vue'
import DoorPanel from './DoorPanel.vue'
import KeyList from './KeyList.vue'
import LinksPanel from './LinksPanel.vue'
import ReachPanel from './ReachPanel.vue'
import RubricPanel from './RubricPanel.vue'
import SignalPanel from './SignalPanel.vue'
import StudentPanel from './StudentPanel.vue'
import { useTeaching } from './teaching'
import TimerPanel from './TimerPanel.vue'
import WayInPanel from './WayInPanel.vue'

/** What lies beside the sheet, one panel at a time; with none open, what is in the slot. */
defineProps<{ id: string }>()
const { panel, chosen, acts, commands, beginPass } = useTeaching()
const close = () => (panel.value = undefined)
</script>

<template>
  <KeyList v-if="panel === 'keys'" :acts="acts" :commands="commands" @close="close" />
  <DoorPanel v-else-if="panel === 'door'" @close="close" />
  <ReachPanel v-else-if="panel === 'reach'" :id="id" @close="close" />
  <SignalPanel
    v-else-if="panel === 'signal'"
    @close="close"
    @pass="(round) => beginPass({ kind: 'signal', ...round })"
  />
  <TimerPanel v-else-if="panel === 'timer'" @close="close" />
  <BoardPanel v-else-if="panel === 'board'" :id="id" @close="close" />
  <WayInPanel v-else-if="panel === 'wayIn'" :id="id" @close="close" />
  <RubricPanel v-else-if="panel === 'rubric'" @close="close" />
  <LinksPanel v-else-if="panel === 'links'" :id="id" @close="close" />
  <StudentPanel
    v-else-if="panel === 'student' && chosen.length === 1"
    :key="chosen[0]"
    :student="chosen[0]!"
    @close="close"
  />
  <slot v-else />
</template>
