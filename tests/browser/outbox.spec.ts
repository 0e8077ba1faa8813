import { existsSync, readFileSync } from 'node:fs'
import type { Locator, Page } from '@playwright/test'
import type { RouteConfigEntry } from '@react-router/dev/routes'
import routes from '../../app/routes'
import { expect, open, ownSite, test } from '../support/pages'

// What is sent while the line is gone, or whose answer is lost, is kept on the page and sent again by itself: for every form there is.

/** How the form of a route is filled in and sent; what is typed there stays typed while it waits; and what is there once it is saved. */
type Filled = {
  page: string
  /** Done with the line still there. */
  before?: (page: Page, site: string) => Promise<unknown>
  /** What was typed, where something is, with what the form then holds. */
  typed?: (page: Page) => [Locator, string]
  send: (page: Page) => Promise<unknown>
  saved: (page: Page) => Locator
}

const button = (page: Page, name: string | RegExp) =>
  page.getByRole('button', typeof name === 'string' ? { name, exact: true } : { name })
const press = (name: string | RegExp) => (page: Page) => button(page, name).first().click()
const csv = (text: string) => ({ name: 'table.csv', mimeType: 'text/csv', buffer: Buffer.from(text) })
const at =
  (path: string, ...names: string[]) =>
  async (page: Page, site: string) => {
    const made = await page.request.post(`${site}${path}`, {
      form: Object.fromEntries(names.map((each) => each.split('=') as [string, string])),
      maxRedirects: 0,
    })
    expect(made.status()).toBe(302)
  }
const words = '1800abcd 00000000 00420100 00082020'

const forms: Record<string, Filled> = {
  'routes/sites.tsx': {
    page: '/',
    typed: (page) => [page.getByLabel('Name', { exact: true }), 'Off the line'],
    send: press('Create the site'),
    saved: (page) => page.getByRole('link', { name: 'Off the line' }).first(),
  },
  'routes/import.tsx': {
    page: '/import',
    typed: (page) => [
      page.getByLabel('or its text'),
      '{"format":"hallway-plan","version":2,"site":{"id":"off-line","name":"Brought off the line"}}',
    ],
    send: press('Import'),
    saved: (page) => page.getByRole('link', { name: 'Brought off the line' }).first(),
  },
  'routes/unit.ts': {
    page: 'SITE',
    send: (page) => page.locator('#unit-switch').click(),
    saved: (page) => page.locator('#unit-switch[value=m]'),
  },
  'routes/who.tsx': {
    page: '/who',
    typed: (page) => [page.getByLabel('Your name'), 'Grace'],
    send: press('Save my name'),
    saved: (page) => page.getByText('Grace').first(),
  },
  'routes/survey/survey.tsx': {
    page: 'SITE/survey',
    typed: (page) => [page.getByLabel('A new place'), 'Bell tower'],
    send: press('Add the place'),
    saved: (page) => button(page, 'Edit Bell tower'),
  },
  'routes/survey/device.tsx': {
    page: 'SITE/survey/gallery-laptop',
    typed: (page) => [page.getByLabel('Note'), 'hinge is loose'],
    send: press('Save the device'),
    saved: (page) => page.getByText('is saved').first(),
  },
  'routes/floors/floors.tsx': {
    page: 'SITE/floors',
    typed: (page) => [page.getByLabel('A new floor'), 'Cellar'],
    send: press('Add the floor'),
    saved: (page) => page.getByRole('heading', { name: 'Cellar' }),
  },
  'routes/floors/floor.tsx': {
    page: 'SITE/floors/ground',
    before: (page) => page.getByText('The floor and its drawing').click(),
    typed: (page) => [page.getByLabel('Name', { exact: true }), 'Ground, as built'],
    send: press('Save the floor'),
    saved: (page) => page.getByRole('heading', { name: 'Ground, as built' }),
  },
  'routes/walk/walk.tsx': {
    page: 'SITE/walk',
    typed: (page) => [page.getByLabel('Note').first(), 'behind the curtain'],
    send: press('I was here'),
    saved: (page) => page.getByText('It is done').first(),
  },
  'routes/tables/tables.tsx': {
    page: 'SITE/tables',
    before: (page) => page.getByLabel(/CSV/).setInputFiles(csv('name\nUpper store\n')),
    send: press('Preview'),
    saved: (page) => page.getByText('Upper store').first(),
  },
  'routes/many/many.tsx': {
    page: 'SITE/many?list=devices&do=rename&find=Gallery&replace=Loft&id=gallery-dock',
    before: (page) => page.getByRole('cell', { name: 'the name from Gallery dock to Loft dock' }).waitFor(),
    send: press('Change 1'),
    saved: (page) => page.getByText('It is done, as one change.'),
  },
  'routes/needs/needs.tsx': {
    page: 'SITE/needs',
    before: (page) => page.getByText('Copy a place with all that stands there').click(),
    send: press('Copy the place'),
    saved: (page) => button(page, 'Undo'),
  },
  'routes/needs/state-needs.tsx': {
    page: 'SITE/needs/new?host=replay-server',
    before: (page) => page.getByRole('checkbox').first().check(),
    send: press('Add these needs'),
    saved: (page) => button(page, 'Undo'),
  },
  'routes/needs/need.tsx': {
    page: 'SITE/needs/log-picture',
    typed: (page) => [page.getByLabel('Note'), 'only in the mornings'],
    send: press('Save the need'),
    saved: (page) => page.getByText('is saved').first(),
  },
  'routes/variants/visitors.tsx': {
    page: 'SITE/visitors',
    before: async (page) => {
      await page.getByLabel('Visitor').selectOption('Debrief laptop')
      await page.getByLabel('sits where this one sits').selectOption('Gallery laptop')
    },
    send: press('Add the visitor'),
    saved: (page) => button(page, 'Remove Debrief laptop from there'),
  },
  'routes/variants/growth.tsx': {
    page: 'SITE/growth',
    typed: (page) => [page.getByLabel('Name', { exact: true }), 'one day'],
    send: async (page) => {
      await page.getByLabel('What grows').selectOption('whatever charges takes')
      await page.getByLabel('To', { exact: true }).fill('240 W')
      await press('Add this what-if')(page)
    },
    saved: (page) => button(page, 'Remove one day'),
  },
  'routes/install/install.tsx': {
    page: 'SITE/install',
    typed: (page) => [page.getByRole('region', { name: 'R-08' }).getByLabel('Note'), 'behind the panel'],
    send: press('R-08 is laid'),
    saved: (page) => page.getByText('It is done').first(),
  },
  'routes/prove/prove-run.tsx': {
    page: 'SITE/prove/r-05',
    typed: (page) => [page.getByLabel('What it may be used for, and conditions'), 'one picture'],
    send: async (page) => {
      await page.getByLabel(/Why is it accepted all the same/).fill('the hall opens today')
      await press('Accept it with less')(page)
    },
    saved: (page) => page.getByText('with less: the hall opens today').first(),
  },
  'routes/prove/compare.tsx': {
    page: 'SITE/compare?one=61+62+63&two=70+71+72',
    typed: (page) => [page.getByLabel('The job'), 'copy the rushes'],
    send: async (page) => {
      await page.getByLabel('The second side went over').fill('R-05')
      await press('Keep it with the run')(page)
    },
    saved: (page) => page.getByText(/^copy the rushes: /),
  },
  'routes/prove/record.tsx': {
    page: 'SITE/record',
    before: (page) => page.getByText('Write down what somebody else counted').click(),
    typed: (page) => [page.getByLabel('Who counted'), 'the seller'],
    send: async (page) => {
      await page.getByLabel('Held', { exact: true }).fill('45')
      await page.getByLabel('Of how many').fill('50')
      await press('Write it down')(page)
    },
    saved: (page) => page.getByText('It is done').first(),
  },
  'routes/prove/readings.tsx': {
    page: 'SITE/prove/r-18',
    before: async (page, site) => {
      const sent = { series: 's-own', run: 'R-18', instrument: 'disk test', from: '0', lines: '{"write":2800}' }
      expect((await page.request.post(`${site}/instrument`, { form: sent })).status()).toBe(200)
      await open(page, `${site}/prove/r-18/readings/s-own`)
    },
    send: press('End and write down'),
    saved: (page) => page.getByText('It is done').first(),
  },
  'routes/faults/faults.tsx': {
    page: 'SITE/faults?run=r-12',
    typed: (page) => [page.getByLabel('Or paste what the computer says'), 'usb 4-2: USB disconnect, device number 7'],
    send: press('Search for the fault'),
    saved: (page) => page.getByRole('heading', { name: 'What is wrong with R-12?' }),
  },
  'routes/faults/search.tsx': {
    page: 'SITE/faults/search-debrief',
    typed: (page) => [page.getByRole('region', { name: 'End the search' }).getByLabel('Note').last(), 'later'],
    send: press('Give up for now'),
    saved: (page) => page.getByRole('heading', { name: 'Not found' }),
  },
  'routes/faults/afar.tsx': {
    page: 'SITE/faults/search-debrief/afar',
    send: press('Yes'),
    saved: (page) => page.getByRole('heading', { name: 'Which lead it is' }),
  },
  'routes/handover/handover.tsx': {
    page: 'SITE/handover',
    typed: (page) => [page.getByLabel('Name', { exact: true }), 'Bridge hall, summer'],
    send: press('Hand over'),
    saved: (page) => page.getByRole('heading', { name: 'Bridge hall, summer' }),
  },
  'routes/handover/pack.tsx': {
    page: 'SITE/handover/spring',
    send: press('Make the book and the files'),
    saved: (page) => page.getByText('Hand over anew').or(page.getByText('is being made')).first(),
  },
  'routes/order/order.tsx': {
    page: 'SITE/order',
    before: (page) => button(page, 'Plan this order').waitFor(),
    send: press('Plan this order'),
    saved: (page) => page.getByText('It is done, as it was shown.'),
  },
  'routes/order/orders.tsx': {
    page: 'SITE/orders',
    typed: (page) => [page.getByLabel(/^How many of DisplayPort lead, HBR3/), '1'],
    send: press(/^Came: DisplayPort lead/),
    saved: (page) => page.getByText('2, 1 here').first(),
  },
  'routes/order/suppliers.tsx': {
    page: 'SITE/suppliers',
    typed: (page) => [page.getByRole('region', { name: 'A new supplier' }).getByLabel('Name'), 'Mast Street Stores'],
    send: press('Add the supplier'),
    saved: (page) => page.getByRole('heading', { name: 'Mast Street Stores' }),
  },
  'routes/order/listing.tsx': {
    page: 'SITE/listing',
    typed: (page) => [page.getByLabel('Name in the catalogue'), 'Short stout lead'],
    send: async (page) => {
      await page.getByLabel('Text of the shop page').fill('USB-C to USB-C, 0.8 m, USB4, 60 W')
      await page.getByLabel(/^Price/).fill('14.50')
      await press('Add to the catalogue')(page)
    },
    saved: (page) => page.getByRole('link', { name: 'Short stout lead' }),
  },
  'routes/policy.tsx': {
    page: 'SITE/policy',
    typed: (page) => [page.getByLabel('What a dock costs'), '210.5'],
    send: press('Save'),
    saved: (page) => page.getByText('saved').first(),
  },
  'routes/history/history.tsx': {
    page: 'SITE/history',
    before: async (page, site) => {
      await at('/survey', 'intent=place', 'placeName=Bell tower')(page, site)
      await open(page, `${site}/history`)
    },
    send: press('Undo change 2'),
    saved: (page) => page.getByText('change 3').first(),
  },
  'routes/drawer/list/cables.tsx': {
    page: 'SITE/drawer',
    before: (page) => page.getByRole('checkbox', { name: 'Choose C-0001', exact: true }).check(),
    send: press('Lend'),
    saved: (page) => page.getByText('1 cable lent').first(),
  },
  'routes/drawer/cable/add-cable.tsx': {
    page: 'SITE/drawer/add',
    typed: (page) => [page.getByLabel('Tag', { exact: true }), 'C-0999'],
    send: async (page) => {
      await page
        .getByRole('group', { name: /First end/ })
        .getByLabel('type-C')
        .check()
      await page.getByRole('group', { name: 'Second end' }).getByLabel('type-C').check()
      await page.getByLabel('Length').fill('2 m')
      await press('Add to the drawer')(page)
    },
    saved: (page) => page.getByText('C-0999').first(),
  },
  'routes/drawer/table/import-table.tsx': {
    page: 'SITE/drawer/import',
    before: (page) =>
      page.getByLabel('Table (.xlsx or CSV)').setInputFiles(csv('tag,first end,second end,length\nN-001,C,C,2 m\n')),
    send: press(/^Import/),
    saved: (page) => page.getByText('1 cable came in.'),
  },
  'routes/drawer/chip/chip.tsx': {
    page: 'SITE/drawer/chip',
    before: async (page) => {
      await page.getByLabel(/Words from a tester/).fill(words)
      await page.getByLabel('Its length').fill('1 m')
    },
    typed: (page) => [page.getByLabel('Its tag'), 'N-900'],
    send: press('Make this cable'),
    saved: (page) => page.getByRole('heading', { name: /N-900/ }),
  },
  'routes/drawer/session/new-session.tsx': {
    page: 'SITE/drawer/sessions/new?cables=c-0021+c-0023',
    send: press('Start the session'),
    saved: (page) => page.getByRole('region', { name: 'Step' }).first(),
  },
  'routes/drawer/session/session.tsx': {
    page: 'SITE/drawer/sessions/gallery-drawer?cable=c-0056&test=t5',
    typed: (page) => [page.getByLabel('Watts'), '57'],
    send: press('Save'),
    saved: (page) => page.getByText(/57 W/).first(),
  },
  'routes/drawer/catalogue/catalogue.tsx': {
    page: 'SITE/drawer/catalogue',
    send: press('Add the ready catalogue'),
    saved: (page) => page.getByText(/replaced/).first(),
  },
  'routes/drawer/cable/cable.tsx': {
    page: 'SITE/cables/c-0001',
    send: press('Retire'),
    saved: (page) => button(page, 'Back in the drawer'),
  },
  'routes/dock/dock.tsx': {
    page: 'SITE/docks/gallery-dock',
    send: press(/log picture earlier/),
    saved: (page) => page.getByRole('row').nth(1).getByText('log picture'),
  },
  'routes/run/run.tsx': {
    page: 'SITE/runs/r-13',
    typed: (page) => [page.getByLabel('Note'), 'not to be lost'],
    send: press('Save the run'),
    saved: (page) => page.getByText('R-13 is saved.'),
  },
  'routes/run/new-run.tsx': {
    page: 'SITE/runs/new',
    before: async (page) => {
      await page.getByLabel('Host port').selectOption('debrief-laptop/c')
      await page.getByLabel('Device port').selectOption('gallery-chart/hdmi')
    },
    typed: (page) => [page.getByLabel('Route length'), '2 m'],
    send: press('Lay the run'),
    saved: (page) => page.getByText('is saved').first(),
  },
  'routes/take.ts': {
    page: 'SITE/runs/r-14',
    before: (page) =>
      button(page, /^Do it/)
        .first()
        .waitFor(),
    send: press(/^Do it/),
    saved: (page) => page.getByText('It is done').first(),
  },
}

/** No page sends to it through the outbox: what instruments do without a line is tried from the command line, and a password is kept nowhere. */
const SENT_OTHERWISE = [
  'routes/prove/instrument.ts',
  'routes/people/sign-in.tsx',
  'routes/people/sign-out.ts',
  'routes/people/welcome.tsx',
  'routes/people/account.tsx',
  'routes/people/passkey-door.ts',
  'routes/people/passkeys.ts',
  // told once, to whoever waits for it: tried where there are accounts
  'routes/people/people.tsx',
  'routes/people/site-people.tsx',
]

/** Every route that takes a form, by its file. */
const taking = (entries: readonly RouteConfigEntry[]): string[] =>
  entries.flatMap(({ file, children }) => {
    const text = existsSync(`app/${file}`) ? readFileSync(`app/${file}`, 'utf8') : ''
    const takes = /export (async function|const|function) action\b|export \{ action \}/.test(text)
    return [...(takes ? [file] : []), ...taking(children ?? [])]
  })

test('every route that takes a form is driven here', () => {
  const sent = [...new Set(taking(routes))].filter((file) => !SENT_OTHERWISE.includes(file))
  expect(Object.keys(forms).sort()).toEqual(sent.sort())
})

// each goes off the line and comes back, after the scripts of all pages have come: on a busy machine that takes its time
test.setTimeout(180_000)

const bar = (page: Page) => page.getByRole('status').filter({ hasText: 'Not certain that it was saved' })

for (const [route, form] of Object.entries(forms))
  test(`${route}: without a line the page and what was typed stay, and with it the form is sent by itself`, async ({
    page,
    context,
    complaints,
  }) => {
    const site = await ownSite(page)
    await open(page, form.page.replace('SITE', site))
    await form.before?.(page, site)
    const typed = form.typed?.(page)
    await typed?.[0].fill(typed[1])
    const address = page.url()
    await page.waitForSelector('html[data-at-hand]')
    await context.setOffline(true)
    await form.send(page)
    await expect(bar(page)).toBeVisible()
    await expect(bar(page)).toContainText('there is no line to Hallway')
    expect(page.url()).toBe(address)
    if (typed) await expect(typed[0]).toHaveValue(typed[1])
    await context.setOffline(false)
    await expect(form.saved(page)).toBeVisible()
    await expect(bar(page)).toHaveCount(0)
    await expect(page.getByText('went wrong')).toHaveCount(0)
    complaints.splice(0)
  })

/** Asks for what waits to be sent again now; the page may do so by itself before the hand gets there. */
const tryNow = (page: Page) => Promise.race([press('Try now')(page), bar(page).waitFor({ state: 'hidden' })])

const note = 'not to be lost'
/** A run's form, filled in, and what becomes of what it sends in the test's hand. */
async function fillRun(page: Page): Promise<string> {
  const site = await ownSite(page)
  await open(page, `${site}/runs/r-13`)
  await page.getByLabel('Note').fill(note)
  return site
}
const placeOf = async (page: Page, site: string): Promise<string> =>
  (await page.request.get(`${site}/history`)).text().then((text) => /change (?:<!-- -->)?(\d+)/.exec(text)?.[1] ?? '')

test('an answer that is lost after the save is asked for again, and what was sent is saved once', async ({
  page,
  complaints,
}) => {
  const site = await fillRun(page)
  let sent = 0
  await page.route('**/runs/r-13.data*', async (route) => {
    if (route.request().method() !== 'POST') return route.continue()
    sent += 1
    if (sent > 1) return route.continue()
    await route.fetch({ maxRedirects: 0 })
    await route.abort()
  })
  await press('Save the run')(page)
  await expect(bar(page)).toBeVisible()
  await expect(page.getByText('R-13 is saved.')).toBeVisible()
  expect(sent).toBe(2)
  expect(await placeOf(page, site)).toBe('2')
  complaints.splice(0)
})

test('what waits survives a reload, and is told of when it is saved', async ({ page, complaints }) => {
  await fillRun(page)
  await page.route('**/runs/r-13.data*', (route) =>
    route.request().method() === 'POST' ? route.abort() : route.continue(),
  )
  await press('Save the run')(page)
  await expect(bar(page)).toBeVisible()
  await open(page, page.url())
  await expect(bar(page)).toBeVisible()
  await page.unroute('**/runs/r-13.data*')
  await tryNow(page)
  await expect(page.getByRole('status').filter({ hasText: 'It is saved' })).toBeVisible()
  await expect(page.getByLabel('Note')).toHaveValue(note)
  complaints.splice(0)
})

test('what is refused once the page is gone is kept in words until somebody has read it', async ({
  page,
  complaints,
}) => {
  const site = await fillRun(page)
  await page.route('**/runs/r-13.data*', (route) =>
    route.request().method() === 'POST' ? route.abort() : route.continue(),
  )
  await press('Save the run')(page)
  await expect(bar(page)).toBeVisible()
  const gone = await page.request.post(`${site}/runs/r-13`, { form: { intent: 'delete', base: '1' }, maxRedirects: 0 })
  expect(gone.status()).toBe(302)
  await open(page, site)
  await expect(bar(page)).toBeVisible()
  await page.unroute('**/runs/r-13.data*')
  await tryNow(page)
  const refused = page.getByRole('status').filter({ hasText: 'It was not saved' })
  await expect(refused).toContainText(note)
  await page.reload()
  await expect(refused).toContainText(note)
  await press('Dismiss')(page)
  await expect(refused).toHaveCount(0)
  await open(page, site)
  await expect(page.getByRole('link', { name: 'R-14' }).first()).toBeVisible()
  await expect(refused).toHaveCount(0)
  complaints.splice(0)
})

test('whoever goes to another page leaves the form in the outbox, and hears there that it is saved', async ({
  page,
  complaints,
}) => {
  await fillRun(page)
  await page.route('**/runs/r-13.data*', (route) =>
    route.request().method() === 'POST' ? route.abort() : route.continue(),
  )
  await press('Save the run')(page)
  await expect(bar(page)).toBeVisible()
  await page.getByRole('link', { name: /^Needs/ }).click()
  await expect(page.getByRole('heading', { level: 1, name: /^Needs/ })).toBeVisible()
  await expect(bar(page)).toContainText('from this page')
  await page.unroute('**/runs/r-13.data*')
  await tryNow(page)
  await expect(page.getByRole('status').filter({ hasText: 'It is saved' })).toBeVisible()
  complaints.splice(0)
})

test('a page that is gone to without a line comes when the line is back', async ({ page, context, complaints }) => {
  const site = await ownSite(page)
  await open(page, `${site}/runs/r-13`)
  await page.waitForSelector('html[data-at-hand]')
  await page.getByLabel('Note').fill(note)
  await context.setOffline(true)
  await page.getByRole('link', { name: /^Needs/ }).click()
  await page.getByRole('button', { name: 'Leave without saving' }).click()
  await expect(page.getByRole('status').filter({ hasText: 'No connection to Hallway' })).toBeVisible()
  await expect(page.getByLabel('Note')).toHaveValue(note)
  await context.setOffline(false)
  await expect(page.getByRole('heading', { level: 1, name: /^Needs/ })).toBeVisible()
  complaints.splice(0)
})

test('seven pages of one browser side by side all go on', async ({ page, context, complaints }) => {
  const site = await ownSite(page)
  const others = []
  for (let each = 0; each < 7; each += 1) others.push(await context.newPage())
  for (const other of others) await open(other, `${site}/runs/r-13`)
  await open(page, `${site}/runs/r-13`)
  await page.getByLabel('Note').fill(note)
  await press('Save the run')(page)
  await expect(page.getByText('R-13 is saved.')).toBeVisible()
  for (const other of others) await expect(other.getByLabel('Note')).toHaveValue(note, { timeout: 25_000 })
  complaints.splice(0)
})
