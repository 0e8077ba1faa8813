import type { Browser, Page } from '@playwright/test'
import { freePort } from '../support/free-port'
import { command, type HallwayProcess, PASSWORD, type Somebody, startHallway } from '../support/hallway-process'
import { wrongOn } from '../support/looks'
import { expect, test as hallwayTest, open, verdictOf } from '../support/pages'

// A Hallway of its own, in which people have accounts.

const test = hallwayTest.extend<object, { hallway: HallwayProcess }>({
  hallway: [
    // biome-ignore lint/correctness/noEmptyPattern: the form of a fixture that needs no other
    async ({}, use) => {
      const people: Somebody[] = [
        { name: 'Ada', may: 'admin' },
        { name: 'Wim', may: 'work' },
        { name: 'Loe', may: 'look' },
      ]
      const hallway = await startHallway(await freePort(), { people })
      await use(hallway)
      await hallway.stop()
    },
    { scope: 'worker', timeout: 180_000 },
  ],
})
// one after the other, in one Hallway
test.describe.configure({ mode: 'default' })

async function signIn(page: Page, name: string): Promise<void> {
  await page.getByLabel('Name').fill(name)
  await page.getByLabel('Password').fill(PASSWORD)
  await page.getByRole('button', { name: 'Sign in', exact: true }).click()
}

test('whoever opens a page signs in first, comes to it, and stands beside what they change', async ({ page }) => {
  await page.goto('/sites/saltmarsh/runs/r-13')
  await expect(page.getByRole('heading', { name: 'Sign in' })).toBeVisible()
  await page.getByLabel('Name').fill('wim')
  await page.getByLabel('Password').fill('not that one, surely')
  await page.getByRole('button', { name: 'Sign in' }).click()
  await expect(page.getByText('do not go together')).toBeVisible()
  await expect(page.getByLabel('Name')).toHaveValue('wim')
  await signIn(page, 'wim')
  await expect(verdictOf(page)).toBeVisible()
  await page.waitForSelector('html[data-ready]')
  await expect(page.getByRole('link', { name: 'Wim' })).toBeVisible()
  await page.getByLabel('Note').fill('laid by me')
  await page.getByRole('button', { name: 'Save the run' }).click()
  await expect(page.getByText('R-13 is saved.')).toBeVisible()
  await open(page, '/sites/saltmarsh/history')
  await expect(page.getByText(/Wim/).first()).toBeVisible()
})

test('whoever may look reads everything and can send nothing', async ({ page }) => {
  await page.goto('/sites/saltmarsh/runs/r-09')
  await signIn(page, 'Loe')
  await expect(page.getByRole('note')).toContainText('You may look at this site, not change it.')
  await expect(verdictOf(page)).toBeVisible()
  await expect(page.getByRole('button', { name: 'Save the run' })).toBeDisabled()
  await open(page, '/sites/saltmarsh')
  await expect(page.getByRole('link', { name: 'People' })).toHaveCount(0)
  await expect(page.getByPlaceholder('Find anything')).toBeEnabled()
})

test('what is sent once somebody is signed out waits until they are signed in again, and is sent for nobody else', async ({
  page,
  context,
}) => {
  await page.goto('/sites/saltmarsh/runs/r-14')
  await signIn(page, 'Wim')
  await page.waitForSelector('html[data-ready]')
  await page.getByLabel('Note').fill('not to be lost')
  const elsewhere = await context.newPage()
  await open(elsewhere, '/account')
  await elsewhere.getByRole('button', { name: 'Sign out', exact: true }).click()
  await expect(elsewhere.getByRole('heading', { name: 'Sign in' })).toBeVisible()
  await page.getByRole('button', { name: 'Save the run' }).click()
  await expect(page.getByRole('status').filter({ hasText: 'you are signed out' })).toBeVisible()
  await signIn(elsewhere, 'Wim')
  await expect(page.getByText('R-14 is saved.')).toBeVisible()
  await expect(page.getByLabel('Note')).toHaveValue('not to be lost')

  await page.getByLabel('Note').fill('typed by Wim')
  await elsewhere.goto('/account')
  await elsewhere.getByRole('button', { name: 'Sign out', exact: true }).click()
  await page.getByRole('button', { name: 'Save the run' }).click()
  await expect(page.getByRole('status').filter({ hasText: 'you are signed out' })).toBeVisible()
  await signIn(elsewhere, 'Ada')
  await expect(page.getByText('typed by somebody else')).toBeVisible()
  await open(elsewhere, '/sites/saltmarsh/runs/r-14')
  await expect(elsewhere.getByLabel('Note')).toHaveValue('not to be lost')
})

/** What is shown this once, with the address in front that scripts put there. */
async function secretAt(page: Page, label: string): Promise<string> {
  const field = page.getByLabel(label)
  await expect(field).toHaveValue(/^http:\/\/127\.0\.0\.1:\d+\/(welcome|look)\//)
  return field.inputValue()
}

/** A browser of somebody else. */
const another = async (browser: Browser, { address }: HallwayProcess): Promise<Page> =>
  (await browser.newContext({ baseURL: address })).newPage()

test('somebody is invited, let in to a site, and retired', async ({ page, browser, hallway }) => {
  await page.goto('/people')
  await signIn(page, 'Ada')
  await page.waitForSelector('html[data-ready]')
  await page.getByLabel('Name').fill('Eva Strand')
  await page.getByRole('button', { name: 'Make the account' }).click()
  const invitation = await secretAt(page, 'An invitation for Eva Strand')

  const hers = await another(browser, hallway)
  await hers.goto(invitation)
  await expect(hers.getByRole('heading', { name: 'Welcome, Eva Strand' })).toBeVisible()
  await hers.getByLabel('Password').fill(PASSWORD)
  await hers.getByLabel('Once more').fill(PASSWORD)
  await hers.getByRole('button', { name: 'Save the password' }).click()
  await signIn(hers, 'Eva Strand')
  await expect(hers.getByText('No site yet.')).toBeVisible()

  await open(page, '/sites/saltmarsh/people')
  await page.getByLabel('Let somebody in').selectOption('Eva Strand')
  await page.getByLabel('What somebody new may do').selectOption('work')
  await page.getByRole('button', { name: 'Give the right' }).click()
  await expect(page.getByText('It is done.')).toBeVisible()
  await hers.goto('/')
  await expect(hers.getByRole('link', { name: 'Saltmarsh Pilotage School' })).toBeVisible()

  await open(page, '/people')
  await page
    .getByRole('row', { name: /Eva Strand/ })
    .getByRole('button', { name: 'Retire' })
    .click()
  await expect(page.getByText('Retired: Eva Strand')).toBeVisible()
  await hers.goto('/sites/saltmarsh')
  await expect(hers.getByRole('heading', { name: 'Sign in' })).toBeVisible()
})

test('a client looks by a link, which tells that it was used and is taken back', async ({ page, browser, hallway }) => {
  await page.goto('/sites/saltmarsh/people')
  await signIn(page, 'Ada')
  await page.waitForSelector('html[data-ready]')
  await page.getByLabel('For whom or what').fill('The school')
  await page.getByRole('button', { name: 'Make it' }).click()
  const link = await secretAt(page, 'A link for The school')
  const theirs = await another(browser, hallway)
  await theirs.goto(link)
  await expect(theirs).toHaveURL(/\/sites\/saltmarsh$/)
  await expect(theirs.getByRole('note')).toContainText('You may look at this site')
  await open(page, '/sites/saltmarsh/people')
  await expect(page.getByRole('row', { name: /The school/ })).toContainText('once')
  await page.getByRole('button', { name: 'Take back: The school' }).click()
  await expect(page.getByText('It is done.')).toBeVisible()
  await theirs.goto('/sites/saltmarsh')
  await expect(theirs.getByRole('heading', { name: 'Sign in' })).toBeVisible()
})

test('its pages have no serious finding of axe and do not run off the side', async ({ page }) => {
  await open(page, '/sign-in')
  expect(await wrongOn(page)).toEqual([])
  await signIn(page, 'Ada')
  await expect(page.getByRole('heading', { name: 'Sites', exact: true })).toBeVisible()
  for (const path of ['/account', '/people', '/sites/saltmarsh/people']) {
    await open(page, path)
    expect([path, ...(await wrongOn(page))]).toEqual([path])
  }
})

test('whoever leads a site alone changes its rules; whoever works there reads them, and is told why', async ({
  page,
}) => {
  await page.goto('/sites/saltmarsh/policy')
  await signIn(page, 'Wim')
  await expect(page.getByText('Only whoever leads this site may change this.').first()).toBeVisible()
  await expect(page.getByRole('button', { name: /Save the rules|Save/ }).first()).toBeDisabled()
})

test('a passkey lets its owner in without a password, until it is taken away', async ({ browser, hallway }) => {
  // browsers keep passkeys for names, and none for addresses of numbers
  const context = await browser.newContext({ baseURL: hallway.address.replace('127.0.0.1', 'localhost') })
  const page = await context.newPage()
  const device = await context.newCDPSession(page)
  await device.send('WebAuthn.enable')
  await device.send('WebAuthn.addVirtualAuthenticator', {
    options: {
      protocol: 'ctap2',
      transport: 'internal',
      hasResidentKey: true,
      hasUserVerification: true,
      isUserVerified: true,
      automaticPresenceSimulation: true,
    },
  })
  const signOut = async () => {
    await page.getByRole('button', { name: 'Sign out', exact: true }).click()
    await expect(page.getByRole('heading', { name: 'Sign in' })).toBeVisible()
  }
  await open(page, '/sign-in')
  await signIn(page, 'Wim')
  await expect(page.getByRole('link', { name: 'Wim' })).toBeVisible()
  await open(page, '/account')
  await page.getByLabel('What you call it').fill('my phone')
  await page.getByRole('button', { name: 'Add a passkey' }).click()
  await expect(page.getByText('The passkey is kept.')).toBeVisible()
  const row = page.getByRole('row', { name: /my phone/ })
  await expect(row).toContainText('never')
  // one device, one passkey of the same person
  await page.getByLabel('What you call it').fill('my phone once more')
  await page.getByRole('button', { name: 'Add a passkey' }).click()
  await expect(page.getByText('This device has a passkey of yours already.')).toBeVisible()
  await signOut()
  await open(page, '/sign-in?to=/account')
  await page.getByRole('button', { name: 'Sign in with a passkey' }).click()
  await expect(page.getByRole('heading', { name: 'Wim' })).toBeVisible()
  await expect(row).not.toContainText('never')
  expect(await wrongOn(page)).toEqual([])
  await row.getByRole('button', { name: 'Take away' }).click()
  await expect(page.getByText('The passkey is taken away')).toBeVisible()
  await signOut()
  await open(page, '/sign-in')
  await page.getByRole('button', { name: 'Sign in with a passkey' }).click()
  await expect(page.getByRole('alert')).toContainText('opens no account here')
  await context.close()
})

test('the people of the demo come in by the sign-in of their school, and nobody else does', async ({ browser }) => {
  const demo = await startHallway(await freePort(), { words: ['--people'] })
  try {
    expect(demo.said()).toMatch(/Egil +lays and tests +\w+ \w+ \w+ \w+/)
    const page = await (await browser.newContext({ baseURL: demo.address })).newPage()
    await page.goto('/sites/saltmarsh/runs/r-13')
    await page.getByRole('link', { name: 'Sign in at the school (simulated)' }).click()
    await page.getByRole('link', { name: 'Somebody new' }).click()
    await expect(page.getByText('you have no account here')).toBeVisible()
    await page.goto('/sites/saltmarsh/runs/r-13')
    await page.getByRole('link', { name: 'Sign in at the school (simulated)' }).click()
    await page.getByRole('link', { name: 'Egil' }).click()
    await expect(verdictOf(page)).toBeVisible()
    await expect(page.getByRole('link', { name: 'Egil' })).toBeVisible()

    const said = command(demo.home, ['people', 'add', 'Nils'])
    const [, invitation = ''] = /(\/welcome\/\S+)/.exec(said) ?? []
    const his = await (await browser.newContext({ baseURL: demo.address })).newPage()
    await his.goto(invitation)
    await his.getByRole('link', { name: 'Sign in at the school (simulated) instead' }).click()
    await his.getByRole('link', { name: 'Somebody new' }).click()
    await expect(his.getByRole('link', { name: 'Nils' })).toBeVisible()
    await his.goto(invitation)
    await expect(his.getByText('This invitation has ended')).toBeVisible()
  } finally {
    await demo.stop()
  }
})
