import { newChangeId } from '../ui/own-changes'
import { itemOf } from './item'
import { browserKeep } from './keep'
import { Outbox } from './outbox'

let outbox: Outbox | null = null
/** The outbox of this page; null on the server. */
export const theOutbox = (): Outbox | null => outbox

/** Called by whoever does not want to wait for the next try. */
export const tryNow = (): void => void window.dispatchEvent(new Event('hallway-try-now'))

/** After so long, as soon as the browser says that it is on line again, or when somebody does not want to wait. */
const pause = (ms: number): Promise<void> =>
  new Promise((again) => {
    const go = () => {
      clearTimeout(timer)
      window.removeEventListener('online', go)
      window.removeEventListener('hallway-try-now', go)
      again()
    }
    const timer = setTimeout(go, ms)
    window.addEventListener('online', go)
    window.addEventListener('hallway-try-now', go)
  })

/** A page over plain http has no locks; what is then sent twice is saved once. */
const locked = async (name: string, options: LockOptions, work: () => Promise<void>): Promise<void> => {
  if (!('locks' in navigator)) return work()
  await navigator.locks.request(`hallway-outbox-${name}`, options, async (lock) => {
    if (lock) await work()
  })
}

/** Who is signed in on this page, as the page says it. */
const accountHere = (): string | null => document.documentElement.dataset.account || null

/** What of a site is read beside the data of pages. */
const READ = /\.data$|^\/sites\/[^/]+\/(changes|copy)$/

/**
 * Puts the outbox between the router and the line. The router has no place of its own for what lies around a request, so `fetch` itself is told apart: the forms
 * of pages and what pages are made of go through the outbox, anything else as ever.
 */
export function installOutbox(): void {
  const plain = window.fetch.bind(window)
  const own = new Outbox({
    fetch: plain,
    keep: browserKeep(),
    pause,
    inTurn: (name, work) => locked(name, {}, work),
    unlessDone: (name, work) => locked(name, { ifAvailable: true }, work),
  })
  outbox = own
  window.fetch = (input, init) => {
    if (input instanceof Request) return plain(input, init)
    const url = new URL(input, location.href)
    if (url.origin !== location.origin) return plain(input, init)
    const method = init?.method?.toUpperCase() ?? 'GET'
    if (method === 'GET' && READ.test(url.pathname)) return own.read(input, init)
    const page = `${location.pathname}${location.search}`
    const item =
      method === 'POST' && url.pathname.endsWith('.data')
        ? itemOf(url.href, init?.body, { page, at: Date.now(), as: accountHere(), newId: newChangeId })
        : null
    return item ? own.send(item, init?.signal) : plain(input, init)
  }
  void own.goOn()
}
