import { StrictMode, startTransition } from 'react'
import { hydrateRoot } from 'react-dom/client'
import { HydratedRouter } from 'react-router/dom'
import { mayOpenAnew, openAnew } from './open-anew'
import { OtherShape, openCopy } from './open-copy'
import { keepDrafts } from './outbox/drafts'
import { installOutbox } from './outbox/install'
import { keepPagesAtHand } from './outbox/pages-at-hand'
import { holdEarlyKeys } from './ui/early-keys'

/** How long to wait before asking once more for a copy that did not come. The page works without scripts until then. */
const ASK_AGAIN_MS = [500, 2000, 5000, 15_000]

/** A page of a site comes rendered; before scripts take it over they need the copy that it shows. */
async function openShown(): Promise<void> {
  const shown = document.querySelector<HTMLElement>('[data-copy-site]')?.dataset
  if (!shown?.copySite || !shown.copyIdentity) return
  const name = { identity: shown.copyIdentity, place: Number(shown.copyPlace) }
  for (const wait of [...ASK_AGAIN_MS, null]) {
    try {
      await openCopy(shown.copySite, name)
      return
    } catch (error) {
      if (error instanceof OtherShape && mayOpenAnew()) return openAnew()
      if (wait === null) throw error
      await new Promise((again) => setTimeout(again, wait))
    }
  }
}

installOutbox()
keepDrafts()
holdEarlyKeys()
openShown().then(() =>
  startTransition(() => {
    hydrateRoot(
      document,
      <StrictMode>
        <HydratedRouter />
      </StrictMode>,
    )
  }),
)

/** Long after what the page itself is made of. */
const AT_HAND_AFTER_MS = 2000
const AT_HAND_AT_LAST_MS = 6000
setTimeout(() => {
  // not every browser tells when it is idle, and a busy one never is
  if ('requestIdleCallback' in window) window.requestIdleCallback(keepPagesAtHand, { timeout: AT_HAND_AT_LAST_MS })
  else keepPagesAtHand()
}, AT_HAND_AFTER_MS)
