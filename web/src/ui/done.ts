import { useQueryClient } from '@tanstack/vue-query'
import { ref } from 'vue'

/** Something that was done, in words, and how to take it back. */
export interface Done {
  said: string
  undo?: () => Promise<unknown>
}

/** What was done last and what went wrong last on a page; after each act, and after it is taken back, the page is read anew. */
export function useDone() {
  const queries = useQueryClient()
  const done = ref<Done>()
  const problem = ref<string>()

  async function finished(what: Done) {
    const undo = what.undo && (() => what.undo!().then(() => queries.invalidateQueries()))
    done.value = { said: what.said, undo }
    await queries.invalidateQueries()
  }

  /** True if it was done. */
  async function tried(act: () => Promise<Done>) {
    problem.value = undefined
    try {
      await finished(await act())
      return true
    } catch (failure) {
      problem.value = (failure as Error).message
      return false
    }
  }

  return { done, problem, finished, tried }
}
