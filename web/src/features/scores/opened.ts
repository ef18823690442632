import { computed } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import type { Asked, Cell } from './sheet'

const same = (one: Cell, other: Cell) => one.student === other.student && one.lesson === other.lesson

/** What is looked at and what is open on the page of scores, all of it in its address. */
export function useOpened() {
  const route = useRoute()
  const router = useRouter()
  const text = (name: string) => (route.query[name] as string | undefined) || undefined

  const asked = computed<Asked>(() => ({
    from: text('from'),
    to: text('to'),
    strand: text('strand') as Asked['strand'],
  }))
  const cells = computed(() => {
    const [student, second] = [text('student'), text('otherStudent')]
    return [
      ...(student ? [{ student, lesson: text('lesson') }] : []),
      ...(student && second ? [{ student: second, lesson: text('otherLesson') }] : []),
    ] as Cell[]
  })
  const judging = computed(() => text('judge') === 'all')

  const go = (query: Record<string, string | undefined>) => router.replace({ query: { ...asked.value, ...query } })
  const openCells = ([first, second]: Cell[]) =>
    go({
      student: first?.student,
      lesson: first?.lesson,
      otherStudent: second?.student,
      otherLesson: second?.lesson,
    })

  /** Opens a number, or puts it away again; or sets it beside the one that is open. */
  function why(cell: Cell, beside: boolean) {
    const [first] = cells.value
    if (beside && first && !same(first, cell)) return openCells([first, cell])
    return openCells(first && same(first, cell) && cells.value.length === 1 ? [] : [cell])
  }

  return {
    asked,
    cells,
    judging,
    why,
    isOpen: (cell: Cell) => cells.value.some((c) => same(c, cell)),
    lookAt: (next: Asked) => router.replace({ query: { ...route.query, ...next } }),
    judge: () => go({ judge: 'all' }),
    /** Puts away one of what is open; the other stays. */
    putAway: (cell: Cell) => openCells(cells.value.filter((c) => !same(c, cell))),
    /** Puts away what was opened last. */
    close: () => openCells(cells.value.slice(0, -1)),
  }
}
