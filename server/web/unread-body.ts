import type { RequestHandler } from 'express'

/** What of a body nobody reads is let through and thrown away, so that its sender reads the answer and not a broken line. */
const MOST_BYTES = 300_000_000
const LONGEST_MS = 10_000

/** Ends a request whose body was answered before all of it was read. */
export const unreadBody: RequestHandler = (request, response, next) => {
  response.once('finish', () => {
    if (request.complete) return
    const end = () => request.socket.destroy()
    const late = setTimeout(end, LONGEST_MS)
    let left = MOST_BYTES
    request.removeAllListeners('data')
    request.on('data', (piece: Buffer) => {
      left -= piece.length
      if (left < 0) end()
    })
    request.once('close', () => clearTimeout(late))
    request.resume()
  })
  next()
}
