import { computed, ref } from 'vue'
import type { LiveLesson } from '../../live/lesson'
import type { Act } from '../../live/outbox'
import { isHere } from './choosing'

/** A pass over the whole class: everybody, except those who are taken out. */
export type Pass = { kind: 'rollCall' } | { kind: 'signal'; statement: string; ledBy: string | null }

export function usePass({ drawn, note }: LiveLesson) {
  const pass = ref<Pass>()
  const out = ref(new Set<string>())
  const rows = computed(() => drawn.value?.rows ?? [])

  /** Begins from what is known; but until half of the class has been seen, everybody is taken to be here. */
  function begin(next: Pass) {
    pass.value = next
    const known = rows.value.filter(isHere).length * 2 >= rows.value.length
    const isOut = (row: { whereabouts: string }) => (known ? !isHere(row) : row.whereabouts === 'excused')
    out.value = new Set(rows.value.filter(isOut).map((r) => r.id))
  }

  /** Takes somebody out, or back in. */
  function takeOut(student: string) {
    const next = new Set(out.value)
    if (!next.delete(student)) next.add(student)
    out.value = next
  }

  /** Notes the pass and says in words what was noted. */
  function finish(): string | undefined {
    const done = pass.value
    if (!done) return undefined
    pass.value = undefined
    const kept = rows.value.map((r) => r.id).filter((student) => !out.value.has(student))
    if (done.kind === 'rollCall') {
      note({ type: 'rollCallTaken', here: kept })
      return `Roll call: ${kept.length} here`
    }
    // Who was taken out answered nothing, if they are here.
    const silent = rows.value.filter((r) => isHere(r) && out.value.has(r.id)).map((r) => r.id)
    const round: Act = { type: 'signalRoundHeld', statement: done.statement, answered: kept, silent, ledBy: done.ledBy }
    const isUp = drawn.value?.board.some((b) => b.item === 'statement')
    note(round, ...(isUp ? [{ type: 'boardTaken' as const, item: 'statement' as const }] : []))
    return `Signal round: ${kept.length} answered`
  }

  return { pass, out, begin, takeOut, finish }
}
