<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '../../api/client'
import type { DrawnRow, DrawnStroke } from '../../live/drawn'
import { count } from '../../ui/format'
import KeyCap from '../../ui/KeyCap.vue'
import PresenceRibbon from '../../ui/PresenceRibbon.vue'
import StatusMark from '../../ui/StatusMark.vue'
import TallyStrokes from '../../ui/TallyStrokes.vue'
import type { LoggedAct } from '../../live/acts'
import ActStrip from './ActStrip.vue'
import { wordsBeside } from './wordsBeside'

const props = defineProps<{
  row: DrawnRow
  head: Schemas['LiveHead']
  now: number
  chosen: boolean
  onTurn: boolean
  hand: boolean
  acting: boolean
  acts: readonly LoggedAct[]
  /** The name of their group while there are groups. */
  group?: string
  /** In a roll call or a signal round: whether they are taken out. */
  out?: string
}>()
const emit = defineEmits<{ pick: [more: boolean]; act: [act: LoggedAct] }>()

const span = computed(() => Math.max(1, props.head.countedTo - props.head.countedFrom))
const share = (at: number) => Math.min(1, Math.max(0, (at - props.head.countedFrom) / span.value))
const isToCome = computed(() => ['planned', 'live'].includes(props.head.stage))
/** How far it has come; nothing of it before the bell. */
const until = computed(() => share(isToCome.value ? props.now : props.head.countedTo))
const ribbon = computed(() =>
  props.row.stretches
    .map((s) => [share(s.from), s.to === null ? until.value : Math.min(until.value, share(s.to))] as [number, number])
    .filter(([from, to]) => to > from),
)
const spoke = computed(() => props.row.spoke.map(share))
const beside = computed(() => wordsBeside(props.row, props.head, props.now, props.group))
/** The numbers of the points to cover that they have covered. */
const covered = computed(() =>
  props.head.plan.points
    .map((point, i) => (props.row.points.includes(point.id) ? i + 1 : 0))
    .filter(Boolean)
    .join(' '),
)
const heard = computed(() => props.row.speaking.some((s) => s.state !== 'struck'))
const gone = computed(() => ['missing', 'excused'].includes(props.row.whereabouts))
const told = (strokes: DrawnStroke[], what: string) =>
  `${what} ${strokes.filter((s) => s.state !== 'struck').reduce((sum, s) => sum + s.credit, 0)}`
</script>

<template>
  <div class="row" role="listitem" :class="{ chosen, 'on-turn': onTurn, gone, out }">
    <button
      class="who"
      :aria-pressed="chosen"
      :aria-label="`${row.called} ${row.rest}, ${out ?? (beside === 'here?' ? 'perhaps here' : row.whereabouts)}, key ${row.key}${hand ? ', hand up' : ''}`"
      @click="emit('pick', $event.shiftKey || $event.ctrlKey || $event.metaKey)"
    >
      <StatusMark :status="row.whereabouts" :pencil="row.pencilled" />
      <KeyCap class="key" :k="row.key" aria-hidden="true" />
      <span class="name"
        ><b>{{ row.called }}</b
        ><span v-if="!heard && !gone" class="unheard" aria-label="not heard yet" role="img" /> {{ row.rest }}</span
      >
      <span v-if="covered" class="points" :aria-label="`covered points ${covered}`" role="img">{{ covered }}</span>
      <span v-if="hand" class="hand" role="img" aria-label="hand up" />
    </button>
    <span class="middle">
      <ActStrip v-if="acting" class="strip" :acts="acts" compact @act="(act) => emit('act', act)" />
      <template v-else>
        <span class="beside"
          ><template v-if="out"
            ><b>{{ out }}</b></template
          ><template v-else-if="row.refused.length"><b>not stored</b></template
          ><template v-else>{{ beside }}</template></span
        >
        <PresenceRibbon
          class="line"
          :stretches="ribbon"
          :spoke="spoke"
          :until="until"
          :label="`${beside || 'present'}, spoke ${count(spoke.length, 'time')}`"
        />
      </template>
    </span>
    <span><TallyStrokes :strokes="row.speaking" pen="speaking" :label="told(row.speaking, 'speaking')" /></span>
    <span><TallyStrokes :strokes="row.questions" pen="questions" :label="told(row.questions, 'questions')" /></span>
    <span><TallyStrokes :strokes="row.chat" pen="chat" :label="told(row.chat, 'chat')" /></span>
    <span class="group"><TallyStrokes :strokes="row.group" pen="group" :label="told(row.group, 'group work')" /></span>
    <span><TallyStrokes :strokes="row.nods" pen="nods" :label="told(row.nods, 'nods')" /></span>
  </div>
</template>

<style scoped>
.row {
  display: grid;
  grid-template-columns: var(--columns);
  position: relative;
  align-items: center;
  height: var(--row);
  border-bottom: 1px solid var(--rule);
  /* A row changes by itself, and one that is scrolled away costs nothing. */
  contain: layout paint style;
  content-visibility: auto;
  contain-intrinsic-size: auto var(--row);
}
.row.chosen {
  background: var(--paper-deep);
  box-shadow: inset 3px 0 0 var(--ink);
}
.row.on-turn {
  background: var(--live);
  color: var(--on-live);
  --ink: var(--on-live);
  --ink-soft: var(--on-live-soft);
  --rule: #b39a2e;
  --paper: var(--live);
  --pen-attendance: var(--on-live);
  --pen-speaking: #1b4a9c;
  --pen-chat: #0b4f4a;
  --pen-questions: #662266;
  --pen-group: #6b3a05;
  --pen-nods: #8e1f3d;
}
.who {
  display: flex;
  align-items: baseline;
  gap: 7px;
  height: 100%;
  min-width: 0;
  padding-left: 6px;
  text-align: start;
  line-height: var(--row);
}
/* The whole row chooses its student, except where acts lie on it. */
.who::after {
  content: '';
  position: absolute;
  inset: 0;
}
.strip {
  position: relative;
  z-index: 1;
  background: var(--paper);
}
.name {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  color: var(--ink-soft);
}
.name b {
  font-weight: 650;
  color: var(--ink);
}
.out .name b {
  text-decoration: line-through;
}
.gone .name b {
  font-weight: 400;
  color: var(--ink-soft);
}
.key {
  flex: none;
  width: 13px;
  color: var(--ink-soft);
  font-size: 0.8125rem;
}
.unheard {
  display: inline-block;
  width: 7px;
  height: 7px;
  margin-left: 5px;
  border: 1.4px solid var(--pen-speaking);
  border-radius: 50%;
}
.points {
  flex: none;
  margin-left: auto;
  margin-right: 6px;
  color: var(--pen-speaking);
  font-size: 0.75rem;
  font-weight: 650;
}
.points + .hand {
  margin-left: 0;
}
.hand {
  flex: none;
  width: 0;
  height: 12px;
  margin-left: auto;
  margin-right: 8px;
  border-left: 3px solid var(--pen-speaking);
  align-self: center;
}
.middle {
  display: flex;
  align-items: center;
  gap: 8px;
  min-width: 0;
  padding-right: 14px;
}
.beside {
  flex: none;
  width: 118px;
  font-size: var(--text-small);
  white-space: nowrap;
  font-style: italic;
  color: var(--ink-soft);
}
.line {
  flex: 1 1 0;
  width: 0;
  min-width: 0;
}
@media (max-width: 900px) {
  .group {
    display: none;
  }
  .line {
    display: none;
  }
  .middle {
    padding-right: 4px;
  }
}
@media (max-width: 560px) {
  .middle {
    padding: 0;
  }
  /* Where there are no strokes there is room for the word; elsewhere the mark says it. */
  .beside {
    display: none;
  }
  .row.gone .beside,
  .row.out .beside {
    display: block;
    position: absolute;
    right: 0;
    width: 180px;
    background: var(--paper);
  }
}
</style>
