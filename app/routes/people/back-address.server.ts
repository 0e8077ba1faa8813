import { publicUrl } from '../../../server/web/reach'

/** Where the company's sign-in sends a browser back to: by the name that people use. */
export const backAddress = (request: Request): string =>
  new URL('/sign-in/company/back', publicUrl() ?? new URL(request.url).origin).href
