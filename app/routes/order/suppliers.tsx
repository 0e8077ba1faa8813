import { Heading, Text } from '@chakra-ui/react'
import { data, Form, useNavigation } from 'react-router'
import { putOffers, removeOffer, removeSupplier, saveSupplier } from '../../../core/change/changes/orders'
import { freeIds, slugOf } from '../../../core/plan/free-id'
import { byId } from '../../../core/plan/lookup'
import { formatLength, parseLength } from '../../../core/quantity/length'
import { decimal, type Parsed, parsed, unreadable } from '../../../core/quantity/parsed'
import { type Offer, offerSchema, type Supplier, supplierSchema } from '../../../core/vocabulary/order'
import { refused } from '../../../server/sites/change-site'
import { readForm } from '../../read-form.server'
import { baseOf, change, whyNotSaved } from '../../stored.server'
import text from '../../theme/text.module.css'
import { MadeFrom } from '../../ui/change-fields'
import { MainButton, Notice, QuietButton } from '../../ui/controls'
import { LabelledField, PlainInput, PlainSelect, plainField } from '../../ui/field'
import { takesLength } from '../../ui/keep-typed-unit'
import { RuledTable } from '../../ui/ruled-table'
import { useSite } from '../../ui/site-context'
import { useUnit } from '../../ui/units'
import { readUnit } from '../../unit-cookie'
import type { Route } from './+types/suppliers'
import look from './order.module.css'
import { OrderLinks } from './order-links'

/** A figure somebody typed, or none. */
function figureOf(form: FormData, name: string): number | undefined {
  const text = String(form.get(name) ?? '')
    .trim()
    .replace(',', '.')
  return text === '' ? undefined : Number(text)
}
const wordsOf = (form: FormData, name: string): string | undefined => String(form.get(name) ?? '').trim() || undefined
const given = <T extends object>(fields: T): T =>
  Object.fromEntries(Object.entries(fields).filter(([, value]) => value !== undefined)) as T

function readSupplier(form: FormData, id: string, today: string): Parsed<Supplier> {
  const why = wordsOf(form, 'avoid')
  const read = supplierSchema.safeParse(
    given({
      id,
      name: form.get('name'),
      delivery: figureOf(form, 'delivery'),
      freeFrom: figureOf(form, 'freeFrom'),
      leadDays: figureOf(form, 'leadDays'),
      returnDays: figureOf(form, 'returnDays'),
      avoid: why === undefined ? undefined : { why, on: today },
      note: wordsOf(form, 'note'),
    }),
  )
  if (read.success) return parsed(read.data)
  const field = String(read.error.issues[0]?.path[0])
  return unreadable(
    field === 'name'
      ? 'Give the supplier a name of 1 to 120 letters.'
      : /Days$/.test(field)
        ? 'Days are whole and at most 365.'
        : /delivery|freeFrom/.test(field)
          ? 'A price is a figure from 0 to 1000000.'
          : 'This cannot be read.',
  )
}

function readOffer(form: FormData, today: string, unit: 'm' | 'ft'): Parsed<Omit<Offer, 'id'>> {
  const length = parseLength(String(form.get('length') ?? ''), unit)
  if (!length.ok) return length
  const read = offerSchema.safeParse(
    given({
      id: 'offer',
      supplier: form.get('supplier'),
      kind: form.get('kind'),
      length: length.value,
      price: figureOf(form, 'price'),
      number: wordsOf(form, 'number'),
      words: wordsOf(form, 'words'),
      available: figureOf(form, 'available'),
      seen: today,
    }),
  )
  if (read.success) return parsed(read.data)
  const field = String(read.error.issues[0]?.path[0])
  return unreadable(
    field === 'price'
      ? 'Say what one costs, such as 12.50.'
      : field === 'available'
        ? 'How many there are is a whole number.'
        : field === 'number'
          ? "The supplier's number has 60 letters at most."
          : 'Choose a supplier and a kind.',
  )
}

/** A supplier saved or removed, an offer noted or removed. */
export async function action({ request, params }: Route.ActionArgs) {
  const form = await readForm(request)
  const unit = readUnit(request)
  const today = new Date().toISOString().slice(0, 10)
  const saved = await change(request, form, params.site, ({ plan }) => {
    const base = baseOf(form)
    const supplier = byId(plan.suppliers).get(String(form.get('supplier') ?? ''))
    switch (form.get('intent')) {
      case 'remove supplier':
        return supplier ? removeSupplier(plan, base, supplier) : refused('supplier', 'it is no longer there')
      case 'offer': {
        const offer = readOffer(form, today, unit)
        return offer.ok ? putOffers(plan, base, [offer.value]) : refused('offer', offer.problem)
      }
      case 'remove offer': {
        const offer = byId(plan.offers).get(String(form.get('offer') ?? ''))
        return offer ? removeOffer(plan, base, offer) : refused('offer', 'it is no longer there')
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
  if (saved?.outcome === 'saved') return data({ problem: null })
  const { problem, status } = whyNotSaved(saved)
  return data({ problem }, { status })
}

/** Suppliers: their terms, and what they sell at which price. */
export default function Suppliers({ actionData }: Route.ComponentProps) {
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
      {actionData?.problem && <Notice tone="blocked">{actionData.problem}</Notice>}
      {plan.suppliers.map((supplier) => (
        <section key={supplier.id} className={look.order} aria-label={supplier.name}>
          <Heading as="h2" size="md">
            {supplier.name}
          </Heading>
          {supplier.avoid && (
            <p>
              <b>Avoided</b> since {supplier.avoid.on}: {supplier.avoid.why}
            </p>
          )}
          <SupplierForm supplier={supplier} saving={saving} />
          <Offers supplier={supplier} />
        </section>
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
            <LabelledField field={plainField('supplier')} label="Supplier">
              <PlainSelect id="field-supplier" name="supplier">
                {plan.suppliers.map(({ id, name }) => (
                  <option key={id} value={id}>
                    {name}
                  </option>
                ))}
              </PlainSelect>
            </LabelledField>
            <LabelledField field={plainField('kind')} label="Kind">
              <PlainSelect id="field-kind" name="kind">
                {plan.kinds.map(({ id, name }) => (
                  <option key={id} value={id}>
                    {name}
                  </option>
                ))}
              </PlainSelect>
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
            <MainButton name="intent" value="offer" loading={saving}>
              Note the price
            </MainButton>
          </Form>
        </section>
      )}
    </>
  )
}

function SupplierForm({ supplier, saving }: { supplier: Supplier | null; saving: boolean }) {
  const { plan } = useSite()
  const of = supplier?.id ?? 'new'
  const field = (name: string) => ({ ...plainField(name), id: `${of}-${name}` })
  const input = (name: keyof Supplier, rest: Record<string, unknown> = {}) => (
    <PlainInput id={`${of}-${name}`} name={name} defaultValue={String(supplier?.[name] ?? '')} {...rest} />
  )
  return (
    <Form method="post" className={look.form}>
      <MadeFrom />
      {supplier && <input type="hidden" name="supplier" value={supplier.id} />}
      <LabelledField field={field('name')} label="Name">
        {input('name', { required: true, maxLength: 120 })}
      </LabelledField>
      <LabelledField field={field('delivery')} label={`Delivery, ${plan.policy.currency}`}>
        {input('delivery', { inputMode: 'decimal' })}
      </LabelledField>
      <LabelledField field={field('freeFrom')} label="Free from">
        {input('freeFrom', { inputMode: 'decimal' })}
      </LabelledField>
      <LabelledField field={field('leadDays')} label="Days to deliver">
        {input('leadDays', { inputMode: 'numeric' })}
      </LabelledField>
      <LabelledField field={field('returnDays')} label="Days to send back">
        {input('returnDays', { inputMode: 'numeric', placeholder: '0 for never' })}
      </LabelledField>
      <LabelledField field={field('avoid')} label="Avoid, because">
        <PlainInput id={`${of}-avoid`} name="avoid" maxLength={120} defaultValue={supplier?.avoid?.why ?? ''} />
      </LabelledField>
      <LabelledField field={field('note')} label="Note">
        {input('note', { maxLength: 2000 })}
      </LabelledField>
      <div className={look.tools}>
        <MainButton name="intent" value="supplier" loading={saving}>
          {supplier ? 'Save' : 'Add the supplier'}
        </MainButton>
        {supplier && (
          <QuietButton name="intent" value="remove supplier" formNoValidate grave>
            Remove
          </QuietButton>
        )}
      </div>
    </Form>
  )
}

function Offers({ supplier }: { supplier: Supplier }) {
  const { plan, index } = useSite()
  const unit = useUnit()
  const offers = plan.offers.filter((offer) => offer.supplier === supplier.id)
  if (offers.length === 0) return <p className={text.quiet}>No prices noted yet.</p>
  return (
    <RuledTable
      label={`What ${supplier.name} sells`}
      columns={['Kind', 'Length', 'Each', 'There', 'Read on', '']}
      cards
    >
      {offers.map((offer) => {
        const name = index.kinds.get(offer.kind)?.name ?? offer.kind
        return (
          <tr key={offer.id}>
            <td>
              {name}
              {(offer.words || offer.number) && (
                <span className={`${text.block} ${text.small} ${text.quiet}`}>
                  {[offer.words, offer.number].filter(Boolean).join(', ')}
                </span>
              )}
            </td>
            <td>{formatLength(offer.length, unit)}</td>
            <td className={text.mono}>{`${decimal(offer.price, 2)} ${plan.policy.currency}`}</td>
            <td>{offer.available ?? 'enough'}</td>
            <td>{offer.seen}</td>
            <td>
              <Form method="post">
                <MadeFrom />
                <input type="hidden" name="offer" value={offer.id} />
                <QuietButton
                  small
                  name="intent"
                  value="remove offer"
                  aria-label={`Remove the price of ${name}, ${formatLength(offer.length, unit)}`}
                >
                  Remove
                </QuietButton>
              </Form>
            </td>
          </tr>
        )
      })}
    </RuledTable>
  )
}
