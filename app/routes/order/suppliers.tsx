import { Heading, Text } from '@chakra-ui/react'
import { data, useNavigation } from 'react-router'
import { putOffers, removeOffer, removeSupplier, saveSupplier } from '../../../core/change/changes/orders'
import { LARGEST_TABLE_BYTES } from '../../../core/drawer/decode-text'
import { PRICE_LIST_COLUMNS, type PriceList } from '../../../core/order/price-list'
import { freeIds, slugOf } from '../../../core/plan/free-id'
import { byId } from '../../../core/plan/lookup'
import { formatLength, type LengthUnit } from '../../../core/quantity/length'
import { PORT_SITES, type PortSite } from '../../../core/vocabulary/device'
import { refused } from '../../../server/sites/change-site'
import type { SentFile } from '../../../server/web/sent-form'
import { readPricesFile } from '../../off-thread.server'
import { readFormWithFile } from '../../read-form.server'
import { baseOf, change, loadSite, whyNotSaved } from '../../stored.server'
import { MadeFrom } from '../../ui/change-fields'
import { MainButton } from '../../ui/controls'
import { FileField, LabelledField, PlainInput, PlainTextArea, plainField } from '../../ui/field'
import { Form } from '../../ui/form'
import { takesLength } from '../../ui/keep-typed-unit'
import { KindSelect } from '../../ui/kind-select'
import { useSite } from '../../ui/site-context'
import { useUnit } from '../../ui/units'
import { useToday, utcToday } from '../../ui/use-today'
import { WrongLines } from '../../ui/wrong-lines'
import { readUnit } from '../../unit-cookie'
import type { Route } from './+types/suppliers'
import { OneSupplier, SupplierForm } from './one-supplier'
import look from './order.module.css'
import { OrderLinks } from './order-links'
import { readOffer, readSupplier } from './supplier-form'
import { SupplierSelect } from './supplier-select'

type Answer = { problem: string | null; lines?: PriceList['bad'] }
const answer = (problem: string, status: number, lines?: PriceList['bad']) =>
  data<Answer>({ problem, ...(lines ? { lines } : {}) }, { status })

/** More than that is chosen as a file. */
const LONGEST_PASTED = 500_000
const LINES_TOLD = 50

/** A supplier saved or removed, a price noted or removed, or a whole price list brought in. */
export const action = ({ request, params }: Route.ActionArgs) =>
  readFormWithFile(request, { file: LARGEST_TABLE_BYTES, longest: LONGEST_PASTED }, async (form, sent) => {
    const unit = readUnit(request)
    const today = String(form.get('today') ?? '') || utcToday()
    const named = String(form.get('supplier') ?? '')
    if (form.get('intent') === 'prices') return bringPrices({ request, site: params.site, form, sent, today, unit })
    const saved = await change(request, form, params.site, ({ plan }) => {
      const base = baseOf(form)
      const supplier = byId(plan.suppliers).get(named)
      switch (form.get('intent')) {
        case 'remove supplier':
          return supplier
            ? removeSupplier(plan, base, supplier)
            : refused('supplier', 'somebody removed this supplier meanwhile')
        case 'offer': {
          const offer = readOffer(form, today, unit)
          return offer.ok ? putOffers(plan, base, [offer.value]) : refused('offer', offer.problem)
        }
        case 'remove offer': {
          const offer = byId(plan.offers).get(String(form.get('offer') ?? ''))
          return offer ? removeOffer(plan, base, offer) : refused('offer', 'somebody removed this price meanwhile')
        }
        default: {
          const id =
            supplier?.id ??
            freeIds(plan.suppliers.map((each) => each.id))(slugOf(String(form.get('name') ?? ''), 'supplier'))
          const read = readSupplier(form, id, supplier?.avoid?.on ?? today)
          return read.ok ? saveSupplier(read.value, supplier ? base : null) : refused('supplier', read.problem)
        }
      }
    })
    if (saved?.outcome === 'saved') return data<Answer>({ problem: null })
    const { problem, status } = whyNotSaved(saved)
    return answer(problem, status)
  })

type Brought = {
  request: Request
  site: string
  form: FormData
  sent: SentFile | null
  today: string
  unit: LengthUnit
}

/** A price list as a file or as pasted cells, all of it or none. */
async function bringPrices({ request, site, form, sent, today, unit }: Brought) {
  const nothing = 'Nothing was saved.'
  const pasted = String(form.get('pasted') ?? '')
  if (!sent && pasted.trim() === '') return answer(`Choose a file or paste the cells first. ${nothing}`, 422)
  const supplier = String(form.get('supplier') ?? '')
  const { plan } = (await loadSite(site)).copy
  const { kinds, offers } = plan
  const told = sent ? { path: sent.path } : { text: pasted }
  const work = await readPricesFile({ told, plan: { kinds, offers }, supplier, today, unit })
  if (!work.done) return answer(`${work.problem} ${nothing}`, work.status)
  if (!work.value.ok) return answer(`${work.value.problem} ${nothing}`, 422)
  const { offers: read, bad } = work.value.value
  if (bad.length > 0)
    return answer(
      `${bad.length === 1 ? 'One line is' : `${bad.length} lines are`} wrong. ${nothing} Correct them and import it again.`,
      422,
      bad.slice(0, LINES_TOLD),
    )
  const saved = await change(request, form, site, ({ plan: now, place }) => putOffers(now, place, read))
  if (saved?.outcome === 'saved') return data<Answer>({ problem: null })
  const { problem, status } = whyNotSaved(saved)
  return answer(problem, status)
}

export const loader = () => ({ today: utcToday() })

/** Suppliers: their terms, and what they sell at which price. */
export default function Suppliers({ actionData, loaderData }: Route.ComponentProps) {
  const today = useToday(loaderData.today)
  const { plan } = useSite()
  const unit = useUnit()
  const saving = useNavigation().state === 'submitting'
  return (
    <>
      <div className={look.head}>
        <Heading as="h1" size="xl">
          Suppliers
        </Heading>
        <OrderLinks />
      </div>
      <Text mb="3">
        Who sells what, at which price and on which terms. A price here goes into the catalogue: of several, the least.
      </Text>
      {actionData?.problem && <WrongLines problem={actionData.problem} lines={actionData.lines} />}
      {plan.suppliers.map((supplier) => (
        <OneSupplier key={supplier.id} supplier={supplier} saving={saving} />
      ))}
      <section className={look.block} aria-labelledby="new-supplier">
        <Heading as="h2" size="md" mb="1" id="new-supplier">
          A new supplier
        </Heading>
        <SupplierForm key={plan.suppliers.length} supplier={null} saving={saving} />
      </section>
      {plan.suppliers.length > 0 && plan.kinds.length > 0 && (
        <section className={look.block} aria-labelledby="new-offer">
          <Heading as="h2" size="md" mb="1" id="new-offer">
            Note a price
          </Heading>
          <Form method="post" className={look.form} key={plan.offers.length}>
            <MadeFrom />
            <input type="hidden" name="today" value={today} />
            <SupplierSelect id="field-supplier" label="Supplier" />
            <LabelledField field={plainField('kind')} label="Kind">
              <KindSelect id="field-kind" />
            </LabelledField>
            <LabelledField field={plainField('length')} label="Length">
              <PlainInput
                id="field-length"
                name="length"
                required
                {...takesLength}
                placeholder={formatLength(2, unit)}
              />
            </LabelledField>
            <LabelledField field={plainField('price')} label={`Each, ${plan.policy.currency}`}>
              <PlainInput id="field-price" name="price" required inputMode="decimal" />
            </LabelledField>
            <LabelledField field={plainField('number')} label="Its number there">
              <PlainInput id="field-number" name="number" maxLength={60} />
            </LabelledField>
            <LabelledField field={plainField('words')} label="Its name there">
              <PlainInput id="field-words" name="words" maxLength={120} />
            </LabelledField>
            <LabelledField field={plainField('available')} label="How many there are">
              <PlainInput id="field-available" name="available" inputMode="numeric" placeholder="enough" />
            </LabelledField>
            <LabelledField field={plainField('leadDays')} label="Days to deliver, if other">
              <PlainInput id="field-leadDays" name="leadDays" inputMode="numeric" />
            </LabelledField>
            <LabelledField field={plainField('returnDays')} label="Days to send back, if other">
              <PlainInput id="field-returnDays" name="returnDays" inputMode="numeric" placeholder="0 for never" />
            </LabelledField>
            <fieldset className={look.small}>
              <legend>Not taken back from a socket on</legend>
              {PORT_SITES.map((site) => (
                <label key={site}>
                  <input type="checkbox" name="excludes" value={site} /> {siteWords[site]}
                </label>
              ))}
            </fieldset>
            <MainButton name="intent" value="offer" loading={saving}>
              Note the price
            </MainButton>
          </Form>
        </section>
      )}
      {plan.suppliers.length > 0 && (
        <section className={look.block} aria-labelledby="price-list">
          <Heading as="h2" size="md" mb="1" id="price-list">
            A whole price list
          </Heading>
          <Text mb="2">
            A row for each length: {PRICE_LIST_COLUMNS.join(', ')}. Length and price are needed, and the kind or the
            number that the supplier gave it before.
          </Text>
          <Form method="post" encType="multipart/form-data" className={look.form} key={plan.offers.length}>
            <MadeFrom />
            <input type="hidden" name="today" value={today} />
            <SupplierSelect id="field-list-supplier" label="Supplier of the list" />
            <FileField label="From a table (.xlsx or CSV)" name="file" accept=".xlsx,.csv,.tsv,.txt,text/csv" />
            <LabelledField field={plainField('pasted')} label="Or paste the cells">
              <PlainTextArea id="field-pasted" name="pasted" rows={2} />
            </LabelledField>
            <MainButton name="intent" value="prices" loading={saving}>
              Import the prices
            </MainButton>
          </Form>
        </section>
      )}
    </>
  )
}

const siteWords: Record<PortSite, string> = {
  board: 'the board',
  'graphics card': 'a graphics card',
  'add-in card': 'an add-in card',
  front: 'the front',
  hub: 'a hub',
  display: 'a display',
}
