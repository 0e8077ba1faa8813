/** Carries the one-time word that lets a response's own inline scripts run, from the web server to the page renderer. */
export const NONCE_HEADER = 'x-hallway-nonce'
/** Carries the number of a request, so that an error page and the log name the same. */
export const REQUEST_HEADER = 'x-hallway-request'
/** Carries the address a request came from, as the proxy in front tells it. */
export const ADDRESS_HEADER = 'x-hallway-address'
