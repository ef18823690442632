import { HubConnectionBuilder, HubConnectionState, LogLevel } from '@microsoft/signalr'
import { onScopeDispose } from 'vue'
import { pauseAfter } from './tryAgain'

/**
 * A connection to a hub that is kept up until the scope ends. Whenever it stands, the first time and after each break, `watch` says what is to be heard
 * and fetches what was missed; if that fails it is tried again. `lost` hears of each break; `seldom` is for pages that mostly stand open, of which
 * there are many: it is as far between two signs of life as `PageHub` has it.
 */
export function keepConnected(
  path: string,
  hears: Record<string, (message: never) => void>,
  watch: (invoke: (method: string, ...words: unknown[]) => Promise<unknown>) => Promise<unknown>,
  { lost, seldom }: { lost?: () => void; seldom?: boolean } = {},
) {
  let closed = false
  const hub = new HubConnectionBuilder()
    .withUrl(path)
    .configureLogging(LogLevel.None)
    .withAutomaticReconnect({
      nextRetryDelayInMilliseconds: (retry) => pauseAfter(retry.previousRetryCount),
    })
    .build()
  if (seldom) [hub.keepAliveIntervalInMilliseconds, hub.serverTimeoutInMilliseconds] = [45_000, 120_000]
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
  hub.onreconnecting(() => lost?.())
  hub.onreconnected(() => void stand())
  // Closed by the server for good: whether there is something to hear yet, the next try says.
  hub.onclose(() => again(connect))
  onScopeDispose(() => {
    closed = true
    void hub.stop()
  })
  void connect()
}
