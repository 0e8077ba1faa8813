import { PassThrough } from 'node:stream'
import { text } from 'node:stream/consumers'
import createCache, { type EmotionCache } from '@emotion/cache'
import { CacheProvider } from '@emotion/react'
import { renderToPipeableStream } from 'react-dom/server'
import { type EntryContext, type HandleErrorFunction, ServerRouter } from 'react-router'
import { isDatabaseAway } from '../server/database/connection'
import { log } from '../server/log'
import { NONCE_HEADER, REQUEST_HEADER } from '../server/web/nonce'
import { personAsking } from './asker.server'
import { STAND_INS } from './reader.server'
import { nameOfPage, putTogether, type RenderedPage, renderedPages, takenApart } from './rendered-pages'
import { NonceProvider, RequestNumberProvider } from './ui/nonce'

const GIVE_UP_AFTER_MS = 10_000

/**
 * Renders the whole page, then puts the styles it used into its head, so that nothing shifts when scripts take over. A page of a site is what its address and
 * its loaders' answers make of it. What was rendered once is sent again until one of them changes, to whoever has the same rights.
 */
export default async function handleRequest(
  request: Request,
  status: number,
  headers: Headers,
  context: EntryContext,
): Promise<Response> {
  const nonce = request.headers.get(NONCE_HEADER)
  const key = status === 200 ? nameOfPage(request, context) : null
  const kept = key && renderedPages.get(key)
  const page = kept
    ? { whole: kept, status }
    : await render(request, status, context, nonce === null ? '' : STAND_INS.nonce)
  if (key && !kept && page.status === 200 && nonce !== null) renderedPages.set(key, page.whole)
  headers.set('Content-Type', 'text/html; charset=utf-8')
  const person = personAsking()
  const html = putTogether(page.whole, { nonce: nonce ?? '', name: person?.name ?? '', id: person?.id ?? '' })
  return new Response(html, { headers, status: page.status })
}

type Page = { whole: RenderedPage; status: number }

function render(request: Request, status: number, context: EntryContext, nonce: string): Promise<Page> {
  const cache = createCache({ key: 'css' })
  cache.compat = true
  return new Promise((answer, fail) => {
    let code = status
    const giveUp = setTimeout(() => abort(), GIVE_UP_AFTER_MS)
    const { pipe, abort } = renderToPipeableStream(
      <NonceProvider value={nonce}>
        <RequestNumberProvider value={request.headers.get(REQUEST_HEADER)}>
          <CacheProvider value={cache}>
            <ServerRouter context={context} url={request.url} nonce={nonce} />
          </CacheProvider>
        </RequestNumberProvider>
      </NonceProvider>,
      {
        nonce,
        onAllReady() {
          clearTimeout(giveUp)
          text(pipe(new PassThrough()))
            .then((html) => html.replace('</head>', () => `${stylesOf(cache)}</head>`))
            .then((html) => answer({ whole: takenApart(html), status: code }))
            .catch(fail)
        },
        onShellError: fail,
        onError(error) {
          code = 500
          log.error({ err: error }, 'a page could not be rendered')
        },
      },
    )
    giveUp.unref()
  })
}

/** One tag for each global rule, one for all the others, marked so that Emotion takes them over in the browser. */
function stylesOf(cache: EmotionCache): string {
  let globals = ''
  const ids: string[] = []
  let rules = ''
  for (const [id, rule] of Object.entries(cache.inserted)) {
    if (typeof rule !== 'string') continue
    if (cache.registered[`css-${id}`] === undefined) globals += `<style data-emotion="css-global ${id}">${rule}</style>`
    else {
      ids.push(id)
      rules += rule
    }
  }
  return `${globals}<style data-emotion="css ${ids.join(' ')}">${rules}</style>`
}

export const handleError: HandleErrorFunction = (error, { request }) => {
  if (request.signal.aborted) return
  if (isDatabaseAway(error)) log.warn({ ...told(request) }, 'the database does not answer')
  else log.error({ err: error, ...told(request) }, 'a request failed')
}

const told = (request: Request) => ({
  request: request.headers.get(REQUEST_HEADER),
  path: new URL(request.url).pathname,
})
