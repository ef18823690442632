<script setup lang="ts">
import { watch } from 'vue'
import type { Head } from '../../live/drawn'
import EdgeList from './EdgeList.vue'
import Gauge from './Gauge.vue'
import { gauge } from './gauge'
import HandLine from './HandLine.vue'
import RefusedList from './RefusedList.vue'
import ReminderList from './ReminderList.vue'
import SidePanels from './SidePanels.vue'
import { play, sound } from './sound'
import { useTeaching } from './teaching'
import TurnCard from './TurnCard.vue'

/** Beside the sheet: whose turn it is, and what waits. */
defineProps<{ id: string; head: Head }>()
const {
  drawn,
  now,
  note,
  strike,
  running,
  turnRow,
  groupOf,
  outcomes,
  nameOf,
  keyOf,
  commands,
  missing,
  log,
  call,
  callNext,
  isGone,
  cameLate,
  hereFromTheStart,
  setDown,
  drawBy,
  otherDraw,
  run,
  open,
  wrong,
} = useTeaching()

watch(
  () => drawn.value?.hands.length ?? 0,
  (many, few) => sound.value && many > few && play(),
)
</script>

<template>
  <aside v-if="drawn" class="side" aria-label="Turn and hand line">
    <TurnCard
      v-if="turnRow && running"
      class="turn"
      :row="turnRow"
      :group="groupOf.get(turnRow.id)"
      :outcomes="outcomes"
      @outcome="(act) => log(act, [turnRow!.id])"
    />
    <Gauge v-if="gauge" />
    <SidePanels :id="id">
      <ReminderList
        :head="head"
        :before-start="drawn.beforeStart"
        :before-end="drawn.beforeEnd"
        :now="now"
        @tick="(reminder) => note({ type: 'reminderTicked', reminder })"
        @untick="strike"
      />
      <HandLine
        :hands="drawn.hands"
        :name-of="nameOf"
        :now="now"
        :can-call="running"
        :next-key="keyOf('callNext')"
        :is-gone="isGone"
        @stranger="open('door')"
        @call="callNext"
        @call-one="call"
        @set-down="setDown"
      />
      <EdgeList
        v-if="running"
        :commands="commands"
        :missing="missing"
        :draw-by="drawBy"
        @run="(name) => run[name]()"
        @other-draw="otherDraw"
      />
      <p v-if="cameLate" role="status" class="text-small">
        <b>{{ cameLate.students.map(nameOf).join(', ') }}</b> here now, late by {{ cameLate.minutes }} min?
        <button class="quiet" @click="hereFromTheStart">Here from the start</button>
      </p>
      <p v-if="wrong" role="alert" class="text-small font-semibold">{{ wrong }}</p>
      <RefusedList />
    </SidePanels>
  </aside>
</template>

<style scoped>
.side {
  grid-area: side;
  border-right: 2px solid var(--margin);
  padding: 10px 14px 6px 20px;
  overflow-y: auto;
}
.turn {
  margin: -10px -14px 12px -20px;
  padding: 12px 14px 12px 20px;
}
/* Half a window. */
@media (max-width: 900px) {
  .side {
    padding: 10px 10px 10px 12px;
  }
  .turn {
    margin: -10px -10px 12px -12px;
    padding: 8px 10px 8px 12px;
  }
}
/* A narrow one: whose turn it is stands above the sheet, and what waits below it. */
@media (max-width: 560px) {
  .side {
    display: contents;
  }
  .side > :deep(*) {
    order: 2;
    margin: 12px 12px 0;
  }
  .side > .turn {
    order: 0;
    margin: 0;
    padding: 8px 12px;
  }
}
</style>
