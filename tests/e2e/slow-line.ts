import { createServer, connect, type AddressInfo, type Socket } from 'node:net'

/**
 * A slow and lossy line to the program: everything takes half of the delay each way, and of the pieces that are sent so many have to be sent again,
 * which shows as a second more, with all that was sent after them waiting behind.
 */
export async function slowLine(to: string, delay: number, loss: number) {
  const { hostname, port } = new URL(to)
  const open = new Set<Socket>()
  let number = 0
  const pass = (from: Socket, into: Socket) => {
    let free = 0
    from.on('data', (piece) => {
      // Every so manieth instead of by chance: the same line each time.
      const again = ++number % Math.round(1 / loss) === 0 ? 1000 : 0
      free = Math.max(free, Date.now() + delay / 2 + again)
      setTimeout(() => into.writable && into.write(piece), free - Date.now())
    })
    from.on('close', () => setTimeout(() => into.destroy(), Math.max(0, free - Date.now())))
    from.on('error', () => into.destroy())
    open.add(from)
  }
  const server = createServer((near) => {
    const far = connect(Number(port), hostname)
    pass(near, far)
    pass(far, near)
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
