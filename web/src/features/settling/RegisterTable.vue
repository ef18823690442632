<script setup lang="ts">
import { ref } from 'vue'
import type { Schemas } from '../../api/client'
import { hour } from '../../ui/format'
import PresenceRibbon from '../../ui/PresenceRibbon.vue'
import StatusMark from '../../ui/StatusMark.vue'
import StudentEntries from '../entries/StudentEntries.vue'

type Line = Schemas['RegisterLine']
defineProps<{ lesson: string; rows: Line[]; locked: boolean }>()
const emit = defineEmits<{
  declare: [row: Line, status: Schemas['AttendanceStatus']]
  excuse: [row: Line, reason: string]
}>()

/** Whose entries are open below their line. */
const opened = ref<string>()
const excusing = ref<string>()
const reason = ref('')
const statuses = ['present', 'late', 'absent'] as const

function record(row: Line) {
  if (reason.value.trim()) emit('excuse', row, reason.value.trim())
  excusing.value = undefined
  reason.value = ''
}
/** What was reckoned, short where everybody agrees; of somebody whom a roll call missed, when. */
function reckoned(row: Line) {
  if (row.missedAt !== null && row.status === 'absent')
    return row.words.replace('; declared', `, missing at ${hour(row.missedAt)}`)
  return row.disagree
    ? row.words
    : row.words.replace(/^(present) for (\d+) of \2\smin/, '$1').replace(/; (declared|measured)$/, '')
}
</script>

<template>
  <div class="overflow-x-auto">
    <table class="sheet-table register">
      <thead>
        <tr>
          <th>Student</th>
          <th class="ribbon">In the lesson</th>
          <th>Reckoned</th>
          <th>{{ locked ? 'Noted' : 'Put right' }}</th>
        </tr>
      </thead>
      <tbody>
        <template v-for="row in rows" :key="row.student">
          <tr :class="{ disagree: row.disagree }">
            <th scope="row" class="who">
              <StatusMark :status="row.status" /> <b>{{ row.called }}</b>
              <span class="font-normal text-ink-soft">{{ ' ' + row.rest }}</span>
            </th>
            <td class="ribbon"><PresenceRibbon :stretches="row.ribbon" :label="row.words" /></td>
            <td class="words">
              <span :class="{ marked: row.disagree }" :title="row.words">{{ reckoned(row) }}</span>
            </td>
            <td class="right">
              <form v-if="excusing === row.student" class="flex gap-2" @submit.prevent="record(row)">
                <input
                  v-model="reason"
                  class="field w-32"
                  placeholder="reason"
                  maxlength="200"
                  :aria-label="`Reason of the excuse for ${row.called}`"
                />
                <button class="quiet">keep</button>
              </form>
              <template v-else-if="!locked">
                <button
                  v-for="s in statuses"
                  :key="s"
                  class="quiet"
                  :disabled="row.status === s"
                  :aria-label="`${row.called} ${row.rest}: ${s}`"
                  @click="emit('declare', row, s)"
                >
                  {{ s }}
                </button>
                <button class="quiet" :aria-label="`${row.called} ${row.rest}: excuse`" @click="excusing = row.student">
                  excuse
                </button>
              </template>
              <button
                class="quiet"
                :aria-expanded="opened === row.student"
                :aria-label="`${row.called} ${row.rest}: entries`"
                @click="opened = opened === row.student ? undefined : row.student"
              >
                entries
              </button>
            </td>
          </tr>
          <tr v-if="opened === row.student">
            <td colspan="4" class="noted"><StudentEntries :lesson="lesson" :student="row.student" /></td>
          </tr>
        </template>
      </tbody>
    </table>
  </div>
</template>

<style scoped>
.register td,
.register th {
  padding-block: 2px;
}
.who {
  border-bottom: 1px solid var(--rule) !important;
  font-size: var(--text-base) !important;
  white-space: nowrap;
  vertical-align: middle !important;
}
.ribbon {
  width: 150px;
  min-width: 110px;
}
.words {
  font-size: var(--text-small);
  line-height: 1.2;
}
.right {
  white-space: nowrap;
  font-size: var(--text-small);
}
.noted {
  padding: 4px 0 14px 28px !important;
}
.right > button {
  margin-right: 6px;
  min-width: 28px;
}
.right > button:disabled {
  text-decoration: none;
  color: var(--ink-soft);
  font-style: italic;
}
/* On a narrow window a student is a block: what is to be pressed is not pushed out of sight. */
@media (max-width: 40rem) {
  .register thead {
    position: absolute;
    clip-path: inset(50%);
  }
  .register,
  .register tbody {
    display: block;
  }
  .register tr {
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto;
    align-items: baseline;
    gap: 0 12px;
    border-bottom: 1px solid var(--rule);
    padding-block: 3px;
  }
  .register :is(td, th) {
    border: 0 !important;
    padding-right: 0 !important;
  }
  .who,
  .right {
    white-space: normal;
  }
  .words {
    grid-row: 1;
    grid-column: 2;
  }
  .ribbon {
    width: auto;
  }
  .ribbon,
  .right,
  .noted {
    grid-column: 1 / -1;
  }
}
</style>
