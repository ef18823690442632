import { onScopeDispose, ref, shallowRef } from 'vue'
import { api, ask, type Schemas } from '../../api/client'
import { keepConnected } from '../../live/hubConnection'

/**
 * The class board of a lesson: what was put up, from an endpoint that carries nothing else. The hub only says that something changed.
 */
export function useBoard(lesson: string) {
  const board = shallowRef<Schemas['BoardView']>()
  const problem = ref('')
  const now = ref(Date.now())
  let ahead = 0

  async function load() {
    try {
      board.value = await ask(api.GET('/api/lessons/{id}/board', { params: { path: { id: lesson } } }))
      ahead = board.value.now - Date.now()
      now.value = board.value.now
      problem.value = ''
    } catch (failure) {
      problem.value = (failure as Error).message
    }
  }

  void load()
  keepConnected('/live', { changed: () => void load() }, (invoke) => invoke('WatchBoard', lesson).then(load))
  const ticking = setInterval(() => (now.value = Date.now() + ahead), 250)
  onScopeDispose(() => clearInterval(ticking))
  return { board, problem, now }
}
