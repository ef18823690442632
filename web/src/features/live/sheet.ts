import { useMediaQuery } from '@vueuse/core'
import { computed, ref } from 'vue'
import { actsOf, changedKeys, commandsOf, outcomeNames, type CommandName } from '../../live/acts'
import type { LiveLesson } from '../../live/lesson'
import { isHere } from './choosing'

/** What makes sense before the bell: who is there, whose hand is up, who cannot speak. */
export const beforeTheBell: readonly string[] = ['here', 'hand', 'ready', 'pause']

/** The class as it is on the sheet now: who is there, whose turn it is, whose hand is up, and what can be logged about them. */
export function useSheet({ head, drawn }: LiveLesson) {
  const rows = computed(() => drawn.value?.rows ?? [])
  const rowOf = (student: string) => rows.value.find((r) => r.id === student)
  // As one text, which is the same from patch to patch: a new list of acts would draw every row anew.
  const reasons = computed(() => head.value?.nodReasons.join('\n') ?? '')
  const acts = computed(() => actsOf(reasons.value.split('\n').filter(Boolean), changedKeys))
  const commands = computed(() => commandsOf(changedKeys))
  return {
    rows,
    rowOf,
    nameOf: (student: string) => rowOf(student)?.shortName ?? '',
    running: computed(() => head.value?.stage === 'live'),
    planned: computed(() => head.value?.stage === 'planned'),
    here: computed(() => rows.value.filter(isHere).length),
    missing: computed(() => rows.value.filter((r) => r.whereabouts === 'missing' || r.whereabouts === 'left').length),
    turnRow: computed(() => rowOf(drawn.value?.turn?.student ?? '')),
    handsUp: computed(() => new Set(drawn.value?.hands.map((h) => h.student))),
    groupOf: computed(
      () => new Map(drawn.value?.groups.flatMap((g) => g.members.map((m) => [m, g.name] as const)) ?? []),
    ),
    acts,
    /** What lies ready for a press: before the bell only what makes sense then. */
    shownActs: computed(() =>
      head.value?.stage === 'planned' ? acts.value.filter((a) => beforeTheBell.includes(a.name)) : acts.value,
    ),
    outcomes: computed(() => acts.value.filter((a) => outcomeNames.includes(a.name))),
    commands,
    keyOf: (command: CommandName) => commands.value.find((c) => c.name === command)!.key,
    /** The row that the pointer is on. */
    hovered: ref<string>(),
    /** In a narrow window acts lie at the foot instead of in the row. */
    wide: useMediaQuery('(min-width: 901px)'),
  }
}

export type Sheet = ReturnType<typeof useSheet>
