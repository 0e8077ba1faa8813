import { database } from '../../server/database/connection'
import { listen } from '../../server/sites/live'
import { loadSite } from '../stored.server'
import type { Route } from './+types/live'

/** Proxies and browsers drop a line on which nothing is said. */
const SAY_SOMETHING_MS = 20_000

/** The place in the log that a site comes to, as server-sent events, for as long as a page is open. */
export async function loader({ request, params }: Route.LoaderArgs) {
  const { copy } = await loadSite(params.site)
  const encoder = new TextEncoder()
  const stream = new ReadableStream<Uint8Array>({
    start(controller) {
      const say = (text: string) => {
        try {
          controller.enqueue(encoder.encode(text))
        } catch {
          // the page was closed while this was said
        }
      }
      const tell = (place: number) => say(`event: place\ndata: ${place}\n\n`)
      tell(copy.place)
      const stop = listen(database(), params.site, tell)
      const timer = setInterval(() => say(': still here\n\n'), SAY_SOMETHING_MS)
      request.signal.addEventListener('abort', () => {
        stop()
        clearInterval(timer)
        try {
          controller.close()
        } catch {
          // closed from the other side already
        }
      })
    },
  })
  return new Response(stream, {
    headers: {
      'Content-Type': 'text/event-stream; charset=utf-8',
      // held back to be compressed, an event would come late
      'Cache-Control': 'no-cache, no-transform',
    },
  })
}
