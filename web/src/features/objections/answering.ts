import { api, ask, type Schemas } from '../../api/client'
import { useDone } from '../../ui/done'

/** Answers what students say is wrong in their scores; each answer can be taken back. */
export function useAnswering() {
  const { done, problem, tried } = useDone()
  const answer = ({ id, called }: Schemas['ObjectionLine'], text: string) =>
    tried(async () => {
      const params = { path: { id } }
      await ask(api.POST('/api/objections/{id}/answer', { params, body: { text } }))
      return {
        said: `${called} reads your answer on the student page.`,
        undo: () => ask(api.POST('/api/objections/{id}/take-back', { params })),
      }
    })
  return { done, problem, answer }
}
