import type { LaunchOptions } from '@playwright/test'

/** Away from the port people use, so that tests run beside a Hallway that is open. */
export const PORT = 4399

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
