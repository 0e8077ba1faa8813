/** Carries the one-time word that lets a response's own inline scripts run, from the web server to the page renderer. */
export const NONCE_HEADER = 'x-hallway-nonce'
