import { type AddressInfo, createServer } from 'node:net'

/** A port that nobody listens on, so that tests run beside each other and beside a Hallway that is open. */
export async function freePort(): Promise<number> {
  const probe = createServer().listen(0, '127.0.0.1')
  await new Promise((listening) => probe.once('listening', listening))
  const { port } = probe.address() as AddressInfo
  await new Promise((closed) => probe.close(closed))
  return port
}
