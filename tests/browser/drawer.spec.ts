import { strToU8, zipSync } from 'fflate'
import { expect, open, ownSite, test } from '../support/pages'

const csv = (text: string, name = 'cables.csv') => ({ name, mimeType: 'text/csv', buffer: Buffer.from(text) })

test.describe('the list', () => {
  test('a job narrows it, says what it understood, and can be come back to', async ({ page }) => {
    await open(page, '/sites/saltmarsh/drawer')
    const grid = page.getByRole('grid', { name: 'Cables' })
    await expect(grid).toHaveAttribute('aria-rowcount', '57')
    await page.keyboard.press('j')
    await page.keyboard.type('40 Gb/s, at least 2 m, 100 W')
    await expect(page.getByText('carries 40 Gb/s at its length')).toBeVisible()
    await expect(grid.getByRole('row')).toHaveCount(3)
    await expect(grid.getByRole('row', { name: /C-0021/ })).toContainText('2 × type-C, active')
    await page.waitForURL(/job=40.*100/)
    await page.reload()
    await expect(page.getByText('2 of 56 cables')).toBeVisible()
  })

  test('is walked, chosen from and opened with the keyboard, and sorted', async ({ page }) => {
    await open(page, '/sites/saltmarsh/drawer')
    await page.getByRole('button', { name: 'Length' }).click()
    await expect(page.getByRole('columnheader', { name: 'Length' })).toHaveAttribute('aria-sort', 'descending')
    await page.getByRole('grid').focus()
    await page.keyboard.press('Space')
    await page.keyboard.press('Shift+ArrowDown')
    await page.keyboard.press('Shift+ArrowDown')
    await expect(page.getByText('3 chosen')).toBeVisible()
    await page.keyboard.press('Escape')
    await page.keyboard.press('Control+a')
    await expect(page.getByText('56 chosen')).toBeVisible()
    await page.keyboard.press('End')
    await expect(page.getByRole('row', { name: /0\.3 m|0\.5 m/ }).first()).toBeVisible()
    await page.keyboard.press('Enter')
    await page.waitForURL(/\/cables\/c-/)
  })

  test('many cables are retired, given new tags and deleted at once, and each is undone', async ({ page }) => {
    const site = await ownSite(page)
    await open(page, `${site}/drawer?job=black`)
    await page.getByLabel('Choose all that are listed').check()
    await page.getByRole('button', { name: 'Retire' }).click()
    await expect(page.getByText('6 cables retired.')).toBeVisible()
    // one way back, however many places know of it
    await page.getByRole('button', { name: 'Undo' }).click()
    await expect(page.getByText('It is as before again.')).toBeVisible()
    await expect(page).toHaveURL(/job=black/)
    await expect(page.getByText('6 of 56 cables')).toBeVisible()
    await page.getByLabel('First new tag').fill('X-10')
    await page.getByRole('button', { name: 'New tags from here' }).click()
    await expect(page.getByRole('link', { name: 'X-15' })).toBeVisible()
    // they lie in a session, so they stay
    await page.getByRole('button', { name: 'Delete' }).click()
    await expect(page.getByRole('alert')).toContainText('X-10 is in the session "Gallery drawer"')
    await expect(page.getByRole('link', { name: 'X-10' })).toBeVisible()
  })
})

test.describe('one cable', () => {
  test('is added by its mark; the next starts like it, with the next tag', async ({ page }) => {
    const site = await ownSite(page)
    await open(page, `${site}/drawer/add`)
    await page.getByRole('button', { name: 'Add to the drawer' }).click()
    await expect(page.getByText('Choose the connector at the first end.')).toBeVisible()
    await expect(page.getByText('Measure the cable')).toBeVisible()
    const [first, second] = [
      page.getByRole('group', { name: /First end/ }),
      page.getByRole('group', { name: 'Second end' }),
    ]
    await first.getByLabel('type-C').check()
    await second.getByLabel('type-C').check()
    await page.getByLabel('Length').fill('2 m')
    await page.getByLabel('Mark on the plug').selectOption('usb4-40')
    await expect(page.getByRole('complementary')).toContainText('20G 60W 2m P')
    await expect(page.getByRole('complementary')).toContainText('to 0.8 m')
    await page.getByRole('button', { name: 'Add to the drawer' }).click()
    await expect(page.getByText('is in the drawer. The next one starts like it.')).toBeVisible()
    await expect(page.getByLabel('Tag', { exact: true })).toHaveValue('C-0058')
    await expect(page.getByLabel('Length')).toHaveValue('2 m')
    await page.getByLabel('Tag', { exact: true }).fill('C-0001')
    await page.getByRole('button', { name: 'Add to the drawer' }).click()
    await expect(page.getByRole('alert')).toContainText('Nothing was saved')
    await expect(page.getByLabel('Length')).toHaveValue('2 m')
  })

  test('shows its doors, who says so, what disagrees, and what it did; what is seen is written down', async ({
    page,
  }) => {
    const site = await ownSite(page)
    await open(page, `${site}/cables/c-0056`)
    await expect(
      page.getByText(/disagrees about its rate: the mark on it says USB 10 Gb\/s, its chip says USB 2.0/),
    ).toBeVisible()
    const line = page.getByLabel('What you saw')
    await line.fill('it was fine')
    await expect(page.getByText('says nothing that can be written down')).toBeVisible()
    await page.getByRole('button', { name: 'Save what you saw' }).click()
    await expect(page.getByRole('alert')).toContainText('Nothing was saved')
    // what was typed is still there, and is put right
    await line.fill('came up as USB 2.0 for 75 s')
    await expect(page.getByText('Reads as: tried USB 2.0: USB 2.0, 75 s.')).toBeVisible()
    await page.getByLabel('In the socket').selectOption('gallery-laptop/left')
    await expect(page.getByText(/Reads as: tried USB4 40 Gb\/s: USB 2.0, 75 s/)).toBeVisible()
    await page.getByText('What else may have mattered').click()
    await expect(page.getByLabel('What else was plugged in')).toHaveAccessibleDescription(/as the plan has it: \w/)
    await page.getByLabel('What else was plugged in').fill('a mouse, the old hub')
    await page.getByLabel('Adapters in between').fill('a C to A adapter')
    await page.getByRole('button', { name: 'Save what you saw' }).click()
    await expect(
      page.getByRole('row', {
        name: /a soak tried USB4 40 Gb\/s: USB 2.0, 75 s.*beside a mouse, the old hub.*through a C to A adapter.*controller left/,
      }),
    ).toBeVisible()
    await expect(page.getByRole('row', { name: /left 0 of 1 0 % to 98 %/ })).toBeVisible()
  })

  test('is known by what somebody says of its kind, until that is taken back', async ({ page }) => {
    const site = await ownSite(page)
    await open(page, `${site}/drawer/catalogue?edit=kind-c-20`)
    const line = page.getByLabel('What is said of it')
    await line.fill('held 10 Gb/s for 60 s')
    await expect(page.getByText('A test is of one cable')).toBeVisible()
    await page.getByRole('button', { name: 'Save what you saw' }).click()
    await expect(page.getByRole('alert')).toContainText('Nothing was saved')
    await line.fill('the seller says 240 W')
    await page.getByRole('button', { name: 'Save what you saw' }).click()
    await expect(page.getByText('It is saved.')).toBeVisible()
    const row = page.getByRole('row', { name: /what somebody said 5 A, 50 V, says the seller/ })
    await expect(row).toBeVisible()
    await row.getByText('Take back').click()
    await row.getByLabel('Why it does not count').fill('another kind was meant')
    await row.getByRole('button', { name: 'Take it back' }).click()
    await expect(page.getByText('It is taken back.')).toBeVisible()
    await expect(page.getByText(/taken back.*another kind was meant/)).toBeVisible()
  })

  test('is put right, retired and taken back, and never overwrites what somebody saved meanwhile', async ({
    page,
    context,
  }) => {
    const site = await ownSite(page)
    await open(page, `${site}/cables/c-0051`)
    const other = await context.newPage()
    await open(other, `${site}/cables/c-0051`)
    for (const each of [page, other]) await each.getByText('Edit this cable').click()
    await other.getByLabel('Note').fill('theirs')
    await page.getByLabel('Note').fill('mine')
    await page.getByRole('button', { name: 'Save the cable' }).click()
    await expect(page.getByText('C-0051 is saved.')).toBeVisible()
    await other.getByRole('button', { name: 'Save the cable' }).click()
    await expect(other.getByRole('row', { name: /Note you say theirs somebody says mine/ })).toBeVisible()
    await expect(other.getByLabel('Note')).toHaveValue('theirs')
    await page.getByRole('button', { name: 'Retire' }).click()
    await expect(page.getByText('It is retired.', { exact: false }).first()).toBeVisible()
    await page.getByRole('button', { name: 'Back in the drawer' }).click()
    await expect(page.getByText('It is in the drawer.')).toBeVisible()
  })
})

test.describe('a table', () => {
  const table = `Label;From;To;Length (ft);Speed;Notes
N-001;USB-C;USB-C;3;40;blue
N-002;USB-C;USB-C;six;10;
C-0001;HDMI;HDMI;6;HDMI 2.0;taken
N-001;USB-C;USB-C;3;40;twice
`
  test('is read as it is chosen, its columns can be told otherwise, and good rows come in alone', async ({ page }) => {
    const site = await ownSite(page)
    await open(page, `${site}/drawer/import`)
    await page.getByLabel('Table (.xlsx or CSV)').setInputFiles(csv(table))
    await expect(page.getByText('1 row can be imported, 3 rows cannot yet.')).toBeVisible()
    await expect(page.getByRole('row', { name: /^3 length: "six" is not a length/ })).toBeVisible()
    await expect(page.getByRole('row', { name: /^4 tag: "C-0001" is already on a cable of the site/ })).toBeVisible()
    await expect(page.getByRole('row', { name: /^5 tag: "N-001" is already on a cable of line 2/ })).toBeVisible()
    const length = page.locator('select[name=column-length]')
    await length.selectOption('not in the file')
    await expect(page.getByText('No column is chosen for: length.')).toBeVisible()
    await length.selectOption('Length (ft)')
    await page.getByRole('button', { name: 'Import the one good row' }).click()
    await expect(page.getByText('1 cable came in.')).toBeVisible()
    await page.getByLabel('What the job needs').fill('N-001')
    await expect(page.getByRole('row', { name: /N-001/ })).toContainText('0.91 m')
  })

  test('is pasted as it is kept in a spreadsheet, and a word that nobody knows is settled once', async ({ page }) => {
    const site = await ownSite(page)
    await open(page, `${site}/drawer/import`)
    const cells = [
      ['Plugs', 'Len', 'Type'],
      ['USB-C to USB-C', '0.8m', '40G'],
      ['HDMI to HDMI', '5 m', 'zippy'],
      ['HDMI to HDMI', '3 m', 'zippy'],
    ]
    await page.getByLabel('or paste it here').fill(cells.map((row) => row.join('\t')).join('\n'))
    await expect(page.getByText('1 row can be imported, 2 rows cannot yet.')).toBeVisible()
    await page.getByLabel('Take zippy as').selectOption('HDMI 18 Gb/s')
    await page.getByRole('button', { name: 'Import 3 rows' }).click()
    await expect(page.getByText('3 cables came in.')).toBeVisible()
    await page.getByLabel('What the job needs').fill('C-0059')
    await expect(page.getByRole('row', { name: /C-0059/ })).toContainText('HDMI 18 Gb/s')
  })

  test('that is none is refused in words, and the page lives on', async ({ page }) => {
    const site = await ownSite(page)
    await open(page, `${site}/drawer/import`)
    const file = page.getByLabel('Table (.xlsx or CSV)')
    const refused = async (name: string, buffer: Buffer, words: RegExp) => {
      await file.setInputFiles({ name, mimeType: 'text/csv', buffer })
      await expect(page.getByRole('alert')).toContainText(words)
      await expect(page.getByRole('alert')).toContainText('Nothing was imported')
    }
    await refused('picture.csv', Buffer.from([0x89, 0x50, 0x4e, 0x47, 0, 0, 0, 13, 1, 2, 3]), /binary data/)
    await refused('long.csv', Buffer.alloc(5_900_000, 'x'), /one of its lines has 5,900,000 characters/)
    await refused('large.csv', Buffer.alloc(10_000_000, 'x'), /10 MB; a table of cables has at most 6 MB/)
    await file.setInputFiles(csv('\ufefftag,first end,second end,length\nÅ-1,HDMI,HDMI,2 m\n'))
    await expect(page.getByText('1 row can be imported.')).toBeVisible()
    const utf16 = Buffer.from('\ufefftag\tfirst end\tsecond end\tlength\nÅ-2\tHDMI\tHDMI\t2 m\n', 'utf16le')
    await file.setInputFiles({ name: 'office.txt', mimeType: 'text/plain', buffer: utf16 })
    await expect(page.getByRole('row', { name: /Å-2/ })).toBeVisible()
  })

  test('of the whole drawer reads back into an empty site', async ({ page }) => {
    const site = await ownSite(page)
    const table = await (await page.request.get(`${site}/drawer.csv`)).text()
    await open(page, `${site}/drawer/import`)
    await page.getByLabel('Table (.xlsx or CSV)').setInputFiles(csv(table.replaceAll('\r\nC-', '\r\nZ-')))
    await expect(page.getByText('56 rows can be imported.')).toBeVisible()
  })
})

test.describe('a chip', () => {
  const words = '1800abcd 00000000 00420100 00082020'
  test('is read as it is pasted, field by field, against what is printed, and written onto its cable', async ({
    page,
  }) => {
    const site = await ownSite(page)
    await open(page, `${site}/drawer/chip`)
    const text = page.getByLabel(/Words from a tester/)
    await text.fill('1800abcd 123')
    await expect(page.getByRole('alert')).toContainText('Word 2, "123", has 3 hex digits; each word has eight.')
    await text.fill(words)
    await expect(page.getByText('A passive cable, USB 2.0, 3 A, up to 1 m long.')).toBeVisible()
    await expect(page.getByRole('row', { name: /29:27 product type 3 passive cable/ })).toBeVisible()
    await page.getByLabel('Its length').fill('3 m')
    await page.getByLabel('Mark printed').selectOption('usb4-40')
    await page.getByLabel('Power printed').selectOption('100 W')
    await expect(
      page.getByText(/stated to be 3 m long; the latency its chip gives belongs to a lead of up to 1 m/),
    ).toBeVisible()
    await expect(page.getByText('It claims USB4 40 Gb/s; its chip says USB 2.0.')).toBeVisible()
    await expect(page.getByText('It claims 5 A; its chip says 3 A.')).toBeVisible()
    await page.getByLabel('Its tag').fill('c-0023')
    await page.getByRole('button', { name: 'Save what you saw' }).click()
    await page.waitForURL(/cables\/c-0023/)
    await expect(page.getByRole('row', { name: /its chip USB 2.0, 3 A 0x1800abcd/ })).toBeVisible()
  })

  test('comes as the packed folder of a computer too, and makes a cable of its own', async ({ page }) => {
    const site = await ownSite(page)
    await open(page, `${site}/drawer/chip`)
    const files = {
      'typec/port1-cable/identity/id_header': '0x1800abcd\n',
      'typec/port1-cable/identity/cert_stat': '0x0\n',
      'typec/port1-cable/identity/product': '0x00420100\n',
      'typec/port1-cable/identity/product_type_vdo1': '0x00082020\n',
    }
    const zip = zipSync(Object.fromEntries(Object.entries(files).map(([name, value]) => [name, strToU8(value)])))
    const file = page.getByLabel(/packed as/)
    await file.setInputFiles({ name: 'typec.zip', mimeType: 'application/zip', buffer: Buffer.from(zip) })
    await page.getByRole('button', { name: 'Read it' }).click()
    await expect(page.getByRole('heading', { name: 'The cable in port1' })).toBeVisible()
    await page.getByLabel('Its tag').fill('N-900')
    await page.getByRole('button', { name: 'Make this cable' }).click()
    await expect(page.getByRole('alert')).toContainText('give its length too')
    await file.setInputFiles({ name: 'broken.zip', mimeType: 'application/zip', buffer: Buffer.from(zip.slice(0, 90)) })
    await page.getByRole('button', { name: 'Read it' }).click()
    await expect(page.getByRole('alert')).toContainText('damaged')
  })
})

test('tags print for both ends, as a sheet to look at and as PDF', async ({ page }) => {
  await open(page, '/sites/saltmarsh/drawer/tags?cables=c-0003+c-0021')
  await expect(page.getByText('2 cables, both ends: 4 labels on 1 sheet.')).toBeVisible()
  const sheet = page.getByRole('img', { name: 'Sheet 1 of 1' })
  await expect.poll(() => sheet.evaluate((image: HTMLImageElement) => image.naturalWidth)).toBeGreaterThan(0)
  await page.getByLabel('Labels').selectOption('roll-54x25')
  await expect(page.getByText('4 labels on 4 sheets')).toBeVisible()
  const pdf = await page.request.get(
    (await page.getByRole('link', { name: 'PDF to print' }).getAttribute('href')) ?? '',
  )
  expect((await pdf.body()).subarray(0, 5).toString()).toBe('%PDF-')
  const svg = await page.request.get('/sites/saltmarsh/drawer/tags.svg?cables=c-0021&address=javascript:alert(1)')
  expect(svg.headers()['content-security-policy']).toContain("default-src 'none'")
  expect((await page.request.get('/sites/saltmarsh/drawer/tags.pdf?cables=none')).status()).toBe(404)
})

test('the catalogue is taken over, put right, taken out as a table and brought back', async ({ page }) => {
  const site = await ownSite(page)
  await open(page, `${site}/drawer/catalogue`)
  await page.getByRole('button', { name: 'Add the ready catalogue' }).click()
  await expect(page.getByText(/Catalogue: \d+ new, 1 replaced/)).toBeVisible()
  await page.getByRole('link', { name: 'HDMI, 48 Gb/s', exact: true }).click()
  await expect(page.getByRole('heading', { name: 'HDMI, 48 Gb/s' })).toBeVisible()
  await page.getByLabel('Lengths and prices').fill('1 m 15\n2 m cheap')
  await page.getByRole('button', { name: 'Save the kind' }).click()
  await expect(page.getByText('"2 m cheap" is not a length and a price.')).toBeVisible()
  await page.getByLabel('Lengths and prices').fill('1 m 15\n2 m 21,50')
  await page.getByRole('button', { name: 'Save the kind' }).click()
  await expect(page.getByRole('row', { name: /^HDMI, 48 Gb\/s/ })).toContainText('€21.50')
  const table = await (await page.request.get(`${site}/catalogue.csv`)).text()
  await page.getByLabel('From a table (.xlsx or CSV)').setInputFiles(csv(table.replace(',21.5,', ',22,')))
  await page.getByRole('button', { name: 'Import', exact: true }).click()
  await expect(page.getByRole('row', { name: /^HDMI, 48 Gb\/s/ })).toContainText('€22.00')
  await page
    .getByLabel('From a table (.xlsx or CSV)')
    .setInputFiles(csv('name,first end,second end,mark\nX,toslink,HDMI,10\n'))
  await page.getByRole('button', { name: 'Import', exact: true }).click()
  await expect(page.getByRole('alert')).toContainText('line 2: first end: "toslink" is not a connector')
})
