<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import type { Head } from '../../live/drawn'
import EdgeList from './EdgeList.vue'
import Gauge from './Gauge.vue'
import { gauge } from './gauge'
import HandLine from './HandLine.vue'
import RefusedList from './RefusedList.vue'
import ReminderList from './ReminderList.vue'
import SidePanels from './SidePanels.vue'
import { play, sound } from './sound'
import { useTeaching, type Doing } from './teaching'
import TurnCard from './TurnCard.vue'

/** Beside the sheet: whose turn it is, and what waits. */
defineProps<{ id: string; head: Head }>()
const {
  drawn,
  rows,
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
  nodsSeen,
  otherDraw,
  run,
  open,
  panel,
  planned,
  wrong,
} = useTeaching()

const sentOut = computed(() => rows.value.filter((r) => r.sentOutSince !== null))

/** Beside an open panel the commands are one line, until they are asked for. */
const more = ref(false)
watch(panel, () => (more.value = false))
function chooses(name: Doing) {
  more.value = false
  run[name]()
}

watch(nodsSeen, () => sound.value && play())
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
    <div class="middle">
      <Gauge v-if="gauge" />
      <SidePanels :id="id">
        <ReminderList
          :head="head"
          :before-start="drawn.beforeStart"
          :before-end="drawn.beforeEnd"
          :now="now"
          @tick="(reminder, readAloud) => note({ type: 'reminderTicked', reminder, readAloud })"
          @untick="strike"
        />
        <section v-if="sentOut.length" class="mb-3" aria-label="To be let back in">
          <h2 class="border-b-[1.5px] border-ink pb-0.5 font-semibold">To be let back in</h2>
          <p v-for="r in sentOut" :key="r.id" class="flex justify-between gap-2 border-b border-rule py-1 text-small">
            <b>{{ r.shortName }}</b>
            <button class="quiet" @click="note({ type: 'letBackIn', student: r.id })">Let in</button>
          </p>
        </section>
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
        <p v-if="cameLate" role="status" class="text-small">
          <b>{{ cameLate.students.map(nameOf).join(', ') }}</b> here now, late by {{ cameLate.minutes }} min?
          <button class="quiet" @click="hereFromTheStart">Here from the start</button>
        </p>
        <p v-if="wrong" role="alert" class="text-small font-semibold">{{ wrong }}</p>
        <RefusedList />
      </SidePanels>
    </div>
    <template v-if="running || planned">
      <EdgeList
        v-if="!panel || more"
        class="edge"
        :commands="commands"
        :missing="missing"
        :draw-by="drawBy"
        @run="chooses"
        @other-draw="otherDraw"
      />
      <button v-else class="edge quiet text-start" aria-expanded="false" @click="more = true">More commands</button>
    </template>
  </aside>
</template>

<style scoped>
.side {
  grid-area: side;
  border-right: 2px solid var(--margin);
  display: flex;
  flex-direction: column;
  min-height: 0;
}
/* Whose turn it is and what can be opened keep their places; what lies between is scrolled. */
.turn,
.edge {
  flex: none;
  padding: 12px 14px 12px 20px;
}
.middle {
  flex: 1 1 auto;
  min-height: 90px;
  overflow-y: auto;
  padding: 10px 14px 6px 20px;
}
.edge {
  margin: 0;
  padding-block: 4px 6px;
  max-height: 60%;
  overflow-y: auto;
}
/* Half a window. */
@media (max-width: 900px) {
  .middle,
  .edge {
    padding-inline: 12px 10px;
  }
  .turn {
    padding: 8px 10px 8px 12px;
  }
}
/* A narrow one: whose turn it is stands above the sheet, and what waits below it. */
@media (max-width: 560px) {
  .side,
  .middle {
    display: contents;
  }
  .side > :deep(*),
  .middle > :deep(*) {
    order: 2;
    margin: 12px 12px 0;
  }
  .side > .turn {
    order: 0;
    margin: 0;
    padding: 8px 12px;
  }
  .edge {
    max-height: none;
    padding-inline: 0;
  }
}
</style>
