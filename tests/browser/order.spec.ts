import { nothingFree, storeOf } from '../support/nothing-free'
import { expect, open, ownSite, test } from '../support/pages'

test('a whole site is decided, ordered and followed until its leads lie in their runs', async ({ page }) => {
  const site = await ownSite(page, nothingFree)
  await open(page, `${site}/order`)
  const cheapest = page.getByRole('listitem').filter({ hasText: 'Least money' })
  await expect(cheapest).toContainText('proved the best')
  const surest = page.getByRole('listitem').filter({ hasText: 'Surest' })
  await expect(surest).toContainText('proved the best')
  const price = async (plan: typeof cheapest) =>
    Number(/(\d+(?:\.\d+)?) EUR/.exec((await plan.textContent()) ?? '')?.[1])
  expect(await price(cheapest)).toBeGreaterThan(0)
  expect(await price(cheapest)).toBeLessThanOrEqual(await price(surest))
  // what one thing costs otherwise: without a kind the cheapest is dearer, or serves fewer
  await page.getByRole('button', { name: 'Plan this order' }).click()
  await expect(page.getByText('It is done, as it was shown.')).toBeVisible()
  await page.getByRole('link', { name: 'Orders', exact: true }).click()
  const order = page.getByRole('region', { name: /^Order at Pier|^To buy/ }).first()
  await expect(order).toContainText('planned')
  await order.getByRole('button', { name: 'It is sent off' }).click()
  await expect(order).toContainText('ordered 20')
  const line = order.getByRole('row').nth(1)
  const [, run = ''] = /(R-\d+)/.exec((await line.textContent()) ?? '') ?? []
  await line.getByRole('button', { name: /^Came/ }).click()
  await expect(line).toContainText('here, to tag')
  await line.getByRole('button', { name: /^Tag/ }).click()
  await expect(page.getByRole('link', { name: 'Print their tags' })).toBeVisible()
  const [tag = ''] = /C-\d{4}/.exec((await line.textContent()) ?? '') ?? []
  expect(tag).not.toBe('')
  if (run) {
    await open(page, `${site}/runs/${run.toLowerCase()}`)
    await expect(page.getByLabel('Cable', { exact: true })).toHaveValue(/^c-\d{4}/)
  }
  // all of it can be taken back
  await open(page, `${site}/orders`)
  await expect(page.getByText('last day to send back').first()).toBeVisible()
})

test('wishes that nothing fits are named, and a choice that is kept stays', async ({ page }) => {
  const site = await ownSite(page, nothingFree)
  await open(page, `${site}/order?budget=1`)
  await expect(page.getByText('No order serves every run for that money.').first()).toBeVisible()
  await page.getByLabel(/^Costs at most/).fill('')
  await page.getByRole('button', { name: 'Decide again' }).click()
  await expect(page.getByRole('listitem').filter({ hasText: 'Balanced' })).toContainText('proved the best')
  const keep = page.getByRole('combobox', { name: /^Keep another lead for/ }).first()
  const name = (await keep.getAttribute('aria-label')) ?? ''
  await keep.selectOption({ index: 1 })
  await expect(page.getByText('kept by you').first()).toBeVisible()
  await page.getByRole('button', { name: `Stop keeping ${name.replace('Keep another lead for ', '')}` }).click()
  await expect(page.getByText('kept by you')).toHaveCount(0)
  await open(page, `${site}/order?days=many`)
  await expect(page.getByText(/The number of days is a figure/)).toBeVisible()
})

test('an order goes out as a table, a mail and a page, and its days into a calendar', async ({ page }) => {
  const site = await ownSite(page)
  const get = async (path: string) => {
    const answer = await page.request.get(`${site}${path}`)
    expect(answer.status()).toBe(200)
    return answer
  }
  expect(await (await get('/orders/pier-41/order.csv')).text()).toContain('PD-3030')
  expect(await (await get('/orders/pier-41/order.txt')).text()).toContain(
    '2 x DP lead, HBR3, 3 m, 3 m, number PD-3030, 16.00 each',
  )
  expect((await (await get('/orders/pier-41/order.pdf')).body()).subarray(0, 5).toString()).toBe('%PDF-')
  expect(await (await get('/orders.ics')).text()).toContain('BEGIN:VCALENDAR')
  expect((await page.request.get(`${site}/orders/none/order.csv`)).status()).toBe(404)
})

test('a shop page is read while it is pasted, and goes into the catalogue with what it claims', async ({ page }) => {
  const site = await ownSite(page)
  await open(page, `${site}/listing`)
  await page
    .getByLabel('Text of the shop page')
    .fill('Passive USB-C to USB-C lead, Thunderbolt 5, 2 m, 240 W. 40 GB/s!')
  const claims = page.getByRole('table', { name: 'What it claims' })
  await expect(claims.getByRole('row').filter({ hasText: 'Thunderbolt 5' })).toBeVisible()
  await expect(page.getByText(/By the book a passive lead carries Thunderbolt 5 to/)).toBeVisible()
  await expect(page.getByText(/names no extended power range/)).toBeVisible()
  await expect(page.getByText('Is “40 GB/s” in bits or in bytes a second?')).toBeVisible()
  await page.getByLabel('Name in the catalogue').fill('Doubtful lead')
  await page.getByLabel(/^Price/).fill('19')
  await page.getByRole('button', { name: 'Add to the catalogue' }).click()
  await expect(page.getByRole('link', { name: 'Doubtful lead' })).toBeVisible()
})

test('a lead comes from the store of the shop, and goes back there when that is undone', async ({ page }) => {
  const name = `Store ${Date.now()}`
  const id = name.toLowerCase().replace(' ', '-')
  const free = 'c-0021'
  const site = await ownSite(page, nothingFree)
  const made = await page.request.post('/import', {
    form: { text: storeOf(id, name, free) },
    maxRedirects: 0,
  })
  expect(made.status()).toBe(302)
  await open(page, `${site}/order`)
  await expect(page.getByRole('cell', { name: new RegExp(`C-0021 from ${name}`) }).first()).toBeVisible()
  await page.getByRole('button', { name: 'Plan this order' }).click()
  await expect(page.getByText('It is done, as it was shown.')).toBeVisible()
  await open(page, `/sites/${id}/drawer`)
  await expect(page.getByText('C-0021')).toHaveCount(0)
  await open(page, `/sites/${id}/history`)
  await expect(page.getByText(/together with/).first()).toBeVisible()
  await page
    .getByRole('button', { name: /^Undo change/ })
    .first()
    .click()
  await open(page, `/sites/${id}/drawer`)
  await expect(page.getByText('C-0021').first()).toBeVisible()
  await open(page, `${site}/history`)
  await expect(page.getByText(/undid:/).first()).toBeVisible()
})

test('what choosing otherwise costs, how few sorts would do, and a run that waits', async ({ page }) => {
  const site = await ownSite(page, nothingFree)
  await open(page, `${site}/order`)
  await expect(page.getByRole('listitem').filter({ hasText: 'Balanced' })).toContainText('proved the best')
  await page
    .getByRole('button', { name: /^What else costs for/ })
    .first()
    .click()
  const others = page.getByRole('table', { name: /^What else/ })
  await expect(others.getByRole('row').nth(1)).toContainText(/EUR|the same|not possible/)
  await page.getByRole('button', { name: 'Work out one, two and three articles' }).click()
  const few = page.getByRole('table', { name: 'How many runs so many articles serve' })
  await expect(few.getByRole('row').nth(3)).toContainText(/\d+ of \d+/)
  await page.getByLabel('Run that waits').selectOption('r-04')
  await page.getByLabel('What it waits for').fill('a screen lead of 9 m')
  await page.getByRole('button', { name: 'Accept R-04 as it lies' }).click()
  await expect(page.getByText(/waits for a screen lead of 9 m/)).toBeVisible()
  await open(page, `${site}/runs/r-04`)
  await expect(page.getByText(/until there is a screen lead of 9 m/)).toBeVisible()
  await open(page, `${site}/drawer/catalogue`)
  await page.getByRole('button', { name: 'Stop waiting with R-04' }).click()
  await expect(page.getByText(/waits for a screen lead of 9 m/)).toHaveCount(0)
})

test('a price list comes in whole or not at all, and goes out as it came', async ({ page }) => {
  const site = await ownSite(page)
  await open(page, `${site}/suppliers`)
  const list = page.getByRole('region', { name: 'A whole price list' })
  await list
    .getByLabel('Or paste the cells')
    .fill('kind\tlength\tprice\nDisplayPort lead, HBR3\t3 m\t14.5\nno such kind\t2 m\t5')
  await list.getByRole('button', { name: 'Import the prices' }).click()
  await expect(page.getByText(/line 3: kind: "no such kind" is not in the catalogue/)).toBeVisible()
  await list.getByLabel('Or paste the cells').fill('kind\tlength\tprice\nDisplayPort lead, HBR3\t3 m\t14.5')
  await list.getByRole('button', { name: 'Import the prices' }).click()
  await expect(page.getByText(/before: 16/)).toBeVisible()
  const prices = await (await page.request.get(`${site}/suppliers/pier/prices.csv`)).text()
  expect(prices).toContain('14.5')
  expect((await page.request.get(`${site}/suppliers/nobody/prices.csv`)).status()).toBe(404)
})

test('what is not as the listing has it is said at the line while it can go back', async ({ page }) => {
  const site = await ownSite(page)
  await open(page, `${site}/orders`)
  const line = page.getByRole('row').filter({ hasText: 'DisplayPort lead, HBR3' })
  await line.getByRole('button', { name: /^Came/ }).click()
  await line.getByLabel(/^Taped lengths/).fill('3 m; 2.6 m')
  await line.getByLabel(/^Mark printed/).selectOption('none')
  await line.getByLabel(/is not as listed/).fill('ties cut short')
  await line.getByRole('button', { name: /^Tag 2/ }).click()
  await expect(line).toContainText('2.6 m, ordered 3 m')
  await expect(line).toContainText('no mark, listed as')
  await expect(line).toContainText('ties cut short')
})
