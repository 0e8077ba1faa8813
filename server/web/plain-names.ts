import type { RequestHandler } from 'express'

/** What names sites, things and files in an address is plain: no id has anything else in it, and a database is not asked for what cannot be there. */
const PLAIN = /^[\x20-\x7e]*$/

/** The address of no page; it is answered as every page is that is not there. */
const NOWHERE = '/-'

const METHODS = new Set(['GET', 'HEAD', 'POST', 'OPTIONS'])

/** An address as it is read; null where it cannot be. */
function readable(path: string): string | null {
  try {
    return decodeURIComponent(path)
  } catch {
    return null
  }
}

/** Answers names that nothing can have with the page that is not there, and refuses ways of asking that no page knows. */
export const plainNames: RequestHandler = (request, response, next) => {
  if (!METHODS.has(request.method)) {
    response
      .status(405)
      .set('Allow', [...METHODS].join(', '))
      .type('text')
      .send('Hallway is not asked in this way.\n')
    return
  }
  const name = readable(request.path)
  if (name === null || !PLAIN.test(name)) {
    const page = request.path.endsWith('.data') ? `${NOWHERE}.data` : NOWHERE
    request.url = page
    // the page renderer goes by the address as it came
    request.originalUrl = page
  }
  next()
}
