import { api, ask } from '../api/client'
import { entriesOf, type Act } from './outbox'

/**
 * Notes one act where no lesson is being taught: it goes out at once or not at all. Gives the id of its entry, and why it was
 * refused if it was.
 */
export async function noteOne(lesson: string, act: Act, at: number) {
  const entries = entriesOf([act], at)
  const params = { path: { id: lesson } }
  const { refused } = await ask(api.POST('/api/lessons/{id}/entries', { params, body: { entries } }))
  return { entry: entries[0]!.id, refused: refused[0]?.why }
}
