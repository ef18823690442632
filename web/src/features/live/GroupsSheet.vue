<script setup lang="ts">
import { computed } from 'vue'
import { useLive } from '../../live/lesson'
import { entryId } from '../../live/outbox'
import { timeLeft } from '../../ui/format'
import KeyCap from '../../ui/KeyCap.vue'
import NameField from '../../ui/NameField.vue'
import { digitOf } from '../../live/acts'
import { isHere } from './choosing'
import GroupMaker from './GroupMaker.vue'
import GroupMember from './GroupMember.vue'
import { membersThatMove } from './groupMembers'
import { contributions, useSitIn } from './sittingIn'

/** Groups: made at random or by hand, members moved by dragging, by keys or from a list; sit-ins with a mark for each member. */
const props = defineProps<{ id: string; chosen: readonly string[]; running: boolean }>()
const emit = defineEmits<{ close: []; choose: [students: string[]] }>()
const { drawn, note, now, serverTime } = useLive()

const rows = computed(() => drawn.value?.rows ?? [])
const rowOf = (student: string) => rows.value.find((r) => r.id === student)
const here = computed(() => rows.value.filter(isHere).map((r) => r.id))
const groups = computed(() => drawn.value?.groups ?? [])
const placed = computed(() => new Set(groups.value.flatMap((g) => g.members)))
const unplaced = computed(() => here.value.filter((s) => !placed.value.has(s)))
const smallest = computed(() => [...groups.value].sort((a, b) => a.members.length - b.members.length)[0])

function timerOf(group: string) {
  const timer = drawn.value?.timers.find((t) => t.group === group)
  return timer && timeLeft(timer.to, now.value)
}
const nameOf = (student: string) => rowOf(student)?.shortName ?? 'somebody'

/** One more group, of those who are chosen. */
function another() {
  const taken = new Set(props.chosen)
  const kept = groups.value.map((g) => ({ ...g, members: g.members.filter((m) => !taken.has(m)) }))
  const name = `Group ${groups.value.length + 1}`
  note({ type: 'groupsMade', groups: [...kept, { id: entryId(serverTime()), name, members: [...taken] }] })
  emit('choose', [])
}
/** Dissolves one group: its members are in none, and the others stay as they are. */
function dissolve(group: string) {
  const kept = groups.value.filter((g) => g.id !== group)
  note(kept.length ? { type: 'groupsMade', groups: kept } : { type: 'groupsDissolved' })
}
const move = (student: string, group: string | null) => note({ type: 'groupJoined', student, group })
const placeAll = () => {
  const sizes = new Map(groups.value.map((g) => [g.id, g.members.length]))
  note(
    ...unplaced.value.map((student) => {
      const [least] = [...sizes].sort((a, b) => a[1] - b[1])[0]!
      sizes.set(least, sizes.get(least)! + 1)
      return { type: 'groupJoined' as const, student, group: least }
    }),
  )
}

const { sitting, seen, sitIn, mark } = useSitIn(() => emit('choose', []))

function onKey(event: KeyboardEvent) {
  const digit = digitOf(event)
  if (!digit || !props.chosen.length || !props.running) return false
  if (sitting.value) {
    const found = contributions.find((c) => c.key === digit)
    if (!found) return false
    for (const student of props.chosen) mark(student, found.contribution)
    return true
  }
  const group = groups.value[Number(digit) - 1]
  if (digit !== '0' && !group) return false
  note(...props.chosen.map((student) => ({ type: 'groupJoined' as const, student, group: group?.id ?? null })))
  emit('choose', [])
  return true
}
defineExpose({ onKey })

const vMembers = membersThatMove(move)
const onBoard = computed(() => drawn.value?.board.some((b) => b.item === 'groups'))
</script>

<template>
  <section class="groups" aria-label="Groups">
    <div class="rule-head">
      <h2>Groups</h2>
      <span class="flex flex-wrap gap-x-4 text-small font-normal">
        <template v-if="groups.length && running">
          <button class="quiet" @click="note({ type: onBoard ? 'boardTaken' : 'boardPut', item: 'groups' })">
            {{ onBoard ? 'off the board' : 'on the board' }}
          </button>
          <button class="quiet" @click="another">another group</button>
          <button class="quiet" @click="note({ type: 'groupsDissolved' })">dissolve all</button>
        </template>
        <button class="quiet" @click="emit('close')">back to the sheet <KeyCap k="Esc" /></button>
      </span>
    </div>

    <GroupMaker :id="id" :here="here" :running="running" />

    <div class="columns">
      <section v-for="(group, g) in groups" :key="group.id" class="group" :class="{ sitting: sitting === group.id }">
        <div class="flex items-baseline gap-2 border-b-[1.5px] border-ink">
          <KeyCap v-if="g < 9" :k="String(g + 1)" />
          <NameField
            class="name"
            :name="group.name"
            maxlength="60"
            :aria-label="`Name of group ${g + 1}`"
            :disabled="!running"
            @change="(name) => note({ type: 'groupRenamed', group: group.id, name: name || `Group ${g + 1}` })"
          />
          <span v-if="timerOf(group.id)" class="text-small font-semibold">{{ timerOf(group.id) }}</span>
          <button v-if="running" class="quiet text-small" :aria-pressed="sitting === group.id" @click="sitIn(group.id)">
            {{ sitting === group.id ? 'leave' : 'sit in' }}
          </button>
          <button v-if="running" class="quiet text-small" @click="emit('choose', [...group.members])">all</button>
          <button
            v-if="running"
            class="quiet text-small text-ink-soft"
            :aria-label="`Take out ${group.name}: dissolve it alone`"
            @click="dissolve(group.id)"
          >
            out
          </button>
        </div>
        <ul v-members="group.id" :data-group="group.id" class="members">
          <GroupMember
            v-for="student in group.members"
            :key="student"
            :student="student"
            :row="rowOf(student)"
            :chosen="chosen.includes(student)"
            :here="here.includes(student)"
            @press="
              emit('choose', chosen.includes(student) ? chosen.filter((c) => c !== student) : [...chosen, student])
            "
          >
            <template v-if="running && sitting === group.id">
              <button
                v-for="c in contributions"
                :key="c.contribution"
                class="quiet text-small"
                :class="{ 'font-bold': seen[student]?.contribution === c.contribution }"
                @click="mark(student, c.contribution)"
              >
                {{ c.label }}
              </button>
            </template>
            <button
              v-if="running && here.includes(student)"
              class="quiet word text-small"
              :aria-label="`Give ${nameOf(student)} the word before the class`"
              @click="note({ type: 'called', student, origin: 'invited' })"
            >
              {{ drawn?.turn?.student === student ? 'has the word' : 'the word' }}
            </button>
          </GroupMember>
        </ul>
      </section>
      <section v-if="groups.length" class="group">
        <div class="flex items-baseline gap-2 border-b-[1.5px] border-ink">
          <KeyCap k="0" /><span class="flex-1 font-semibold">In no group</span>
          <button v-if="running && unplaced.length" class="quiet text-small" @click="placeAll">
            {{ unplaced.length === 1 ? `into ${smallest?.name}` : 'place all' }}
          </button>
        </div>
        <ul v-members="''" data-group="" class="members">
          <GroupMember
            v-for="student in unplaced"
            :key="student"
            :student="student"
            :row="rowOf(student)"
            :chosen="chosen.includes(student)"
            here
            @press="emit('choose', [student])"
          >
            <button v-if="running && smallest" class="quiet text-small" @click="move(student, smallest.id)">
              into {{ smallest.name }}
            </button>
          </GroupMember>
        </ul>
      </section>
    </div>
    <p v-if="groups.length && running" class="py-2 text-small text-ink-soft">
      A letter, then the number of a group, moves a student; or drag them. While you sit in: 1 contributed, 2 some, 3
      not.
    </p>
  </section>
</template>

<style scoped>
.columns {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(218px, 1fr));
  gap: 18px 28px;
  padding-top: 8px;
}
.group.sitting {
  grid-column: span 2;
  box-shadow: -3px 0 0 var(--ink);
  padding-left: 8px;
}
.name {
  flex: 1;
  min-width: 0;
  min-height: 24px;
  font-weight: 650;
  background: transparent;
}
.members {
  min-height: 36px;
}
@media (max-width: 900px) {
  .group.sitting {
    grid-column: auto;
  }
}
</style>
