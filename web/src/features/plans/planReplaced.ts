import { useQueryClient } from '@tanstack/vue-query'
import { ref } from 'vue'
import { api, ask, sendFile, type Schemas } from '../../api/client'
import type { Done } from '../../ui/done'

/** What takes the place of a whole plan, or of what the plan stands on, each with its undo. */
export function usePlanReplaced(
  id: string,
  replaced: (stored: Schemas['PlanStored']) => void,
  undo: () => void,
  reload: () => Promise<unknown>,
) {
  const queries = useQueryClient()
  const done = ref<Done>()
  const failed = ref<string>()
  const params = { path: { id } }

  async function instead(act: () => Promise<Schemas['PlanStored']>, said: string) {
    failed.value = undefined
    try {
      replaced(await act())
      done.value = { said, undo: async () => undo() }
    } catch (failure) {
      failed.value = (failure as Error).message
    }
  }

  const copyFrom = (from: Schemas['LessonLine']) =>
    instead(
      () => ask(api.POST('/api/lessons/{id}/plan/copy', { params, body: { lesson: from.id } })),
      `The plan of “${from.title}” is copied here.`,
    )

  const bringIn = (file: File) =>
    instead(
      () => sendFile<Schemas['PlanStored']>(`/api/lessons/${id}/plan/file`, file, {}),
      `The plan in ${file.name} is brought in.`,
    )

  async function lessonChanged(what: Done) {
    const again = async () => {
      await queries.invalidateQueries()
      await reload()
    }
    done.value = { ...what, undo: what.undo && (() => what.undo!().then(again)) }
    await again()
  }

  return { done, failed, copyFrom, bringIn, lessonChanged }
}
