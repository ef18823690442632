<script setup lang="ts">
import { computed } from 'vue'
import { count } from '../../ui/format'
import KeyCap from '../../ui/KeyCap.vue'
import ActStrip from './ActStrip.vue'
import AsideForm from './AsideForm.vue'
import FindForm from './FindForm.vue'
import LastEntries from './LastEntries.vue'
import PassBar from './PassBar.vue'
import StoredNote from './StoredNote.vue'
import { useTeaching } from './teaching'

/** At the foot: what the next key is about, what was noted last, and whether it is stored. */
defineProps<{ id: string }>()
const {
  pass,
  finding,
  asideOn,
  chosen,
  running,
  planned,
  rows,
  shownActs,
  nameOf,
  keyOf,
  log,
  lastNods,
  showNods,
  note,
  open,
  takeBack,
  big,
} = useTeaching()
// What is rare is of one student; of several it would push what is often out of the window.
const acts = computed(() => (chosen.value.length > 1 ? shownActs.value.filter((a) => !a.rare) : shownActs.value))

function found(student: string) {
  chosen.value = [student]
  finding.value = false
}
function noteAside(text: string) {
  if (asideOn.value && text) note({ type: 'asideNoted', student: asideOn.value, text })
  asideOn.value = undefined
  chosen.value = []
}
</script>

<template>
  <footer class="foot">
    <PassBar v-if="pass" :id="id" class="pad" />
    <FindForm v-else-if="finding" class="pad" :rows="rows" @found="found" @close="finding = false" />
    <AsideForm v-else-if="asideOn" class="pad" :name="nameOf(asideOn)" @note="noteAside" @close="asideOn = undefined" />
    <div v-else-if="chosen.length > 0 && (running || planned)" class="pad">
      <span class="shrink-0"
        ><b>{{ chosen.length === 1 ? nameOf(chosen[0]!) : count(chosen.length, 'student') }}</b>
        <button v-if="chosen.length === 1" class="quiet ml-2" @click="open('student')">
          more <KeyCap :k="keyOf('student')" /></button
      ></span>
      <ActStrip :acts="acts" :digits-mean-else="big === 'groups'" @act="(act) => log(act, chosen)" />
    </div>
    <template v-else>
      <p class="shrink-0">
        Letter, then a key. <button class="quiet" @click="open('keys')">All keys</button>
        <KeyCap :k="keyOf('keys')" />
      </p>
      <button v-if="lastNods.length" class="press shrink-0" @click="showNods">
        Show the class <KeyCap :k="keyOf('showNods')" />
      </button>
      <LastEntries :can-strike="running" />
    </template>
    <p class="flex shrink-0 items-baseline gap-4">
      <button v-if="running" class="quiet" @click="takeBack">Undo <KeyCap :k="keyOf('undo')" /></button>
      <StoredNote />
    </p>
  </footer>
</template>

<style scoped>
.foot {
  grid-area: foot;
  display: flex;
  align-items: center;
  gap: 24px;
  border-top: var(--foot-line, 2px) solid var(--ink);
  padding: 0 16px 0 20px;
  font-size: var(--text-small);
}
.pad {
  display: flex;
  flex: 1;
  min-width: 0;
  align-items: center;
  gap: 14px;
  overflow-x: auto;
}
/* Half a window: acts lie at the foot. */
@media (max-width: 900px) {
  .foot {
    position: sticky;
    bottom: 0;
    background: var(--paper);
    flex-wrap: wrap;
    padding: 6px 12px;
    gap: 4px 16px;
  }
  .pad {
    flex-basis: 100%;
    overflow: visible;
  }
  .pad > :deep(.strip) {
    flex-wrap: wrap;
  }
}
@media (max-width: 560px) {
  .foot {
    order: 3;
    margin-top: auto;
  }
}
</style>
