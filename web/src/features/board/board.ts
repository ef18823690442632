import { HubConnectionBuilder, LogLevel } from '@microsoft/signalr'
import { onScopeDispose, ref, shallowRef } from 'vue'
import { api, ask, type Schemas } from '../../api/client'

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

  const hub = new HubConnectionBuilder()
    .withUrl('/live')
    .configureLogging(LogLevel.None)
    .withAutomaticReconnect({ nextRetryDelayInMilliseconds: () => 1000 })
    .build()
  hub.on('changed', () => void load())
  const watch = () => hub.invoke('WatchBoard', lesson).then(load)
  hub.onreconnected(() => void watch().catch(() => undefined))
  let closed = false
  const connect = async (): Promise<void> => {
    if (!closed) await hub.start().then(watch, () => setTimeout(() => void connect(), 1000))
  }
  const ticking = setInterval(() => (now.value = Date.now() + ahead), 250)
  onScopeDispose(() => {
    closed = true
    clearInterval(ticking)
    void hub.stop()
  })
  void load()
  void connect()
  return { board, problem, now }
}
