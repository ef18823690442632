import type { Page } from '@playwright/test'
import { createServer, connect, type AddressInfo, type Socket } from 'node:net'

/** Takes the network from one page, open connections too; what comes back gives the network again. */
export async function cutLine(page: Page) {
  const cdp = await page.context().newCDPSession(page)
  await cdp.send('Network.enable')
  const set = (offline: boolean) =>
    cdp.send('Network.emulateNetworkConditions', { offline, latency: 0, downloadThroughput: -1, uploadThroughput: -1 })
  await set(true)
  return () => set(false)
}

/**
 * A slow and lossy line to the program: everything takes half of the delay each way, and of the pieces that are sent so many have to be sent again,
 * which shows as a second more, with all that was sent after them waiting behind. With `cutting` so many of the connections break off after a
 * few thousand bytes.
 */
export async function slowLine(to: string, delay: number, loss: number, cutting = 0) {
  const { hostname, port } = new URL(to)
  const open = new Set<Socket>()
  let [pieces, connections] = [0, 0]
  // Every so manieth instead of by chance: the same line each time.
  const isTurn = (number: number, share: number) => share > 0 && number % Math.round(1 / share) === 0
  const pass = (from: Socket, into: Socket, most: number) => {
    // One behind the other: no piece overtakes another, whatever timers do.
    let line = Promise.resolve()
    let free = 0
    let passed = 0
    const then = (what: () => void) => {
      const due = free
      line = line.then(() => new Promise((done) => setTimeout(done, Math.max(0, due - Date.now())))).then(what)
    }
    from.on('data', (piece) => {
      free = Math.max(free, Date.now() + delay / 2 + (isTurn(++pieces, loss) ? 1000 : 0))
      passed += piece.length
      if (passed > most)
        then(() => {
          from.destroy()
          into.destroy()
        })
      else then(() => into.writable && into.write(piece))
    })
    from.on('close', () => then(() => into.destroy()))
    from.on('error', () => into.destroy())
    open.add(from)
    from.on('close', () => open.delete(from))
  }
  const server = createServer((near) => {
    const far = connect(Number(port), hostname)
    pass(near, far, Infinity)
    pass(far, near, isTurn(++connections, cutting) ? 2000 : Infinity)
  })
  await new Promise<void>((ready) => server.listen(0, '127.0.0.1', ready))
  return {
    address: `http://127.0.0.1:${(server.address() as AddressInfo).port}`,
    close: () => {
      for (const socket of open) socket.destroy()
      server.close()
    },
  }
}
