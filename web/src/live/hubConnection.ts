import { HubConnectionBuilder, HubConnectionState, LogLevel } from '@microsoft/signalr'
import { onScopeDispose } from 'vue'

/**
 * A connection to a hub that is kept up until the scope ends. Whenever it stands, the first time and after each break, `watch` says what is to be heard
 * and fetches what was missed; if that fails it is tried again.
 */
export function keepConnected(
  path: string,
  hears: Record<string, (message: never) => void>,
  watch: (invoke: (method: string, ...words: unknown[]) => Promise<unknown>) => Promise<unknown>,
) {
  let closed = false
  const hub = new HubConnectionBuilder()
    .withUrl(path)
    .configureLogging(LogLevel.None)
    .withAutomaticReconnect({
      nextRetryDelayInMilliseconds: (retry) => Math.min(5000, 300 * 2 ** retry.previousRetryCount),
    })
    .build()
  for (const [name, hear] of Object.entries(hears)) hub.on(name, hear)

  const again = (what: () => Promise<void>) => setTimeout(() => void (closed || what()), 1000)
  async function stand(): Promise<void> {
    try {
      await watch((method, ...words) => hub.invoke(method, ...words))
    } catch {
      // Of a line that broke meanwhile the hub says so itself.
      if (hub.state === HubConnectionState.Connected) again(stand)
    }
  }
  async function connect(): Promise<void> {
    if (closed) return
    await hub.start().then(stand, () => again(connect))
  }
  hub.onreconnected(() => void stand())
  onScopeDispose(() => {
    closed = true
    void hub.stop()
  })
  void connect()
}
