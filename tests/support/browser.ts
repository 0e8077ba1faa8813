import type { LaunchOptions } from '@playwright/test'

/** Away from the port people use, so that tests run beside a Hallway that is open; each worker has ten ports of its own from here on. */
export const FIRST_PORT = 4410
export const portsOf = (worker: number): number => FIRST_PORT + 10 * worker

/** Debian's own headless Chromium. */
export const chromium: LaunchOptions = {
  executablePath: '/usr/bin/chromium-headless-shell',
  args: [
    '--no-sandbox',
    '--disable-gpu',
    '--disable-quic',
    '--no-first-run',
    '--disable-background-networking',
    '--disable-component-update',
    '--disable-sync',
  ],
}
