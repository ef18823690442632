<script setup lang="ts">
import type { Head } from '../../live/drawn'
import { hour } from '../../ui/format'
import Notice from '../../ui/Notice.vue'
import SheetRow from './SheetRow.vue'
import { useTeaching } from './teaching'

/** A row for each student, under the headings of its strands. */
defineProps<{ head: Head }>()
const { rows, minute, shownActs, chosenSet, handsUp, onTurn, isActing, groupOf, outWord, hovered, namePressed, log } =
  useTeaching()
</script>

<template>
  <div class="head-row">
    <span class="name-head"
      ><b>{{ rows.length }} on the roster</b> <span class="text-ink-soft">by family name</span></span
    >
    <span class="scale text-ink-soft" aria-hidden="true"
      ><span>{{ hour(head.countedFrom) }}</span
      ><span>{{ hour((head.countedFrom + head.countedTo) / 2) }}</span
      ><span>{{ hour(head.countedTo) }}</span></span
    >
    <b class="text-pen-speaking">Speaking</b><b class="text-pen-questions">Questions</b><b class="text-pen-chat">Chat</b
    ><b class="group text-pen-group">Group</b><b class="text-pen-nods">Nods</b>
  </div>
  <div role="list" aria-label="Sheet" @mouseleave="hovered = undefined">
    <SheetRow
      v-for="row in rows"
      :key="row.id"
      v-memo="[
        row,
        minute,
        shownActs,
        chosenSet.has(row.id),
        handsUp.has(row.id),
        row.id === onTurn,
        isActing(row.id),
        groupOf.get(row.id),
        outWord(row),
        head.stage,
        head.plan.version,
        head.countedFrom,
        head.countedTo,
      ]"
      :row="row"
      :head="head"
      :now="minute"
      :chosen="chosenSet.has(row.id)"
      :on-turn="row.id === onTurn"
      :hand="handsUp.has(row.id)"
      :acts="shownActs"
      :acting="isActing(row.id)"
      :group="groupOf.get(row.id)"
      :out="outWord(row)"
      @mouseenter="hovered = row.id"
      @pick="(more) => namePressed(row.id, more)"
      @act="(act) => log(act, [row.id])"
    />
  </div>
  <Notice v-if="!rows.length"
    >This class has no roster yet.
    <RouterLink class="quiet" :to="`/classes/${head.classId}/roster`">Bring in a roster</RouterLink> and come back: the
    lesson goes on.</Notice
  >
</template>

<style scoped>
.head-row {
  position: sticky;
  top: 0;
  z-index: 1;
  height: var(--heading);
  background: var(--paper);
  border-bottom: 1.5px solid var(--ink);
  font-size: var(--heading-size, var(--text-small));
  line-height: var(--heading-line, inherit);
  display: grid;
  grid-template-columns: var(--columns);
  align-items: end;
  padding-bottom: var(--heading-gap, 2px);
}
.name-head {
  padding-left: 24px;
  overflow: hidden;
  white-space: nowrap;
}
.scale {
  display: flex;
  justify-content: space-between;
  margin: 0 14px 0 112px;
  font-size: 0.75rem;
}
@media (max-width: 900px) {
  .name-head span,
  .scale {
    visibility: hidden;
    height: 0;
    overflow: hidden;
  }
  .head-row {
    font-size: 0.6875rem;
  }
  .head-row .group {
    display: none;
  }
}
</style>
