import { type AddressInfo, connect, createServer, type Socket } from 'node:net'

/** A line to a database that stands still when it is told to: nothing is lost on it, and nothing comes through. */
export type StallingLine = {
  /** The address of the database by way of the line. */
  url: string
  stalled(): boolean
  stall(): void
  goOn(): void
  close(): Promise<void>
}

export async function stallingLine(databaseUrl: string): Promise<StallingLine> {
  const url = new URL(databaseUrl)
  const { hostname, port } = url
  const sockets = new Set<Socket>()
  let still = false
  const line = createServer((client) => {
    const server = connect(Number(port), hostname)
    for (const [from, to] of [
      [client, server],
      [server, client],
    ] as const) {
      sockets.add(from)
      from.pipe(to)
      if (still) from.unpipe(to).pause()
      from.on('go on', () => void from.pipe(to))
      from.on('stall', () => void from.unpipe(to).pause())
      from
        .on('error', () => to.destroy())
        .on('close', () => {
          sockets.delete(from)
          to.destroy()
        })
    }
  })
  await new Promise<void>((opened) => line.listen(0, '127.0.0.1', opened))
  url.port = String((line.address() as AddressInfo).port)
  return {
    url: url.href,
    stalled: () => still,
    stall() {
      if (still) return
      still = true
      for (const socket of sockets) socket.emit('stall')
    },
    goOn() {
      if (!still) return
      still = false
      for (const socket of sockets) socket.emit('go on')
    },
    async close() {
      for (const socket of sockets) socket.destroy()
      await new Promise((closed) => line.close(closed))
    },
  }
}
