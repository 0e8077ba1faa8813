import type { RequestHandler } from 'express'

/** What names sites, things and files in an address is plain: no id has anything else in it, and a database is not asked for what cannot be there. */
const PLAIN = /^[\x20-\x7e]*$/

/** The address of no page; it is answered as every page is that is not there. */
const NOWHERE = '/-'

const METHODS = new Set(['GET', 'HEAD', 'POST', 'OPTIONS'])

/** A step of an address as it is read; null where it names nothing: it cannot be read, is not plain, or leads elsewhere. */
function readStep(step: string): string | null {
  try {
    const name = decodeURIComponent(step)
    return PLAIN.test(name) && name !== '.' && name !== '..' ? name : null
  } catch {
    return null
  }
}

/** The one form of a path: each step written in the one way there is, nothing empty between them. Null where it names nothing. */
export function onePath(path: string): string | null {
  const steps: string[] = []
  for (const step of path.split('/')) {
    if (step === '') continue
    const name = readStep(step)
    if (name === null) return null
    steps.push(encodeURIComponent(name))
  }
  return `/${steps.join('/')}`
}

/** What was asked for, without the scheme and host that some senders write before it. */
const withoutHost = (url: string): string =>
  url.startsWith('/') || !URL.canParse(url) ? url : url.slice(new URL(url).origin.length) || '/'

/**
 * Stands in front of everything: an address comes in one form from here on, so that whatever guards a page goes by the same words as what finds it. Names that
 * nothing can have are answered with the page that is not there; ways of asking that no page knows are refused.
 */
export const oneAddress: RequestHandler = (request, response, next) => {
  if (!METHODS.has(request.method)) {
    response
      .status(405)
      .set('Allow', [...METHODS].join(', '))
      .type('text')
      .send('Hallway is not asked in this way.\n')
    return
  }
  if (URL.canParse(request.url) && /^https?:$/.test(new URL(request.url).protocol))
    request.headers.host = new URL(request.url).host
  const [, asked = '', more = ''] = /^([^?#]*)([^#]*)/.exec(withoutHost(request.url)) ?? []
  const path = onePath(asked)
  const url = path === null ? (asked.endsWith('.data') ? `${NOWHERE}.data` : NOWHERE) : path + more
  request.url = url
  // the page renderer goes by the address as it came
  request.originalUrl = url
  next()
}
