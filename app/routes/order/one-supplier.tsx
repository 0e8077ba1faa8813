import { Heading } from '@chakra-ui/react'
import { deliveredBy } from '../../../core/order/delivery'
import { formatLength } from '../../../core/quantity/length'
import { decimal } from '../../../core/quantity/parsed'
import type { Offer, Supplier } from '../../../core/vocabulary/order'
import text from '../../theme/text.module.css'
import { MadeFrom } from '../../ui/change-fields'
import { MainButton, QuietButton } from '../../ui/controls'
import { LabelledField, PlainInput, plainField } from '../../ui/field'
import { Form } from '../../ui/form'
import { RuledTable } from '../../ui/ruled-table'
import { useSite } from '../../ui/site-context'
import { useUnit } from '../../ui/units'
import look from './order.module.css'

/** One supplier: its terms, how it has delivered, and what it sells at which price. */
export function OneSupplier({ supplier, saving }: { supplier: Supplier; saving: boolean }) {
  const { plan } = useSite()
  return (
    <section className={look.order} aria-label={supplier.name}>
      <div className={look.head}>
        <Heading as="h2" size="md">
          {supplier.name}
        </Heading>
        <a href={`/sites/${plan.site.id}/suppliers/${supplier.id}/prices.csv`} download className={text.link}>
          Prices as a table (CSV)
        </a>
      </div>
      {supplier.avoid && (
        <p>
          <b>Avoided</b> since {supplier.avoid.on}: {supplier.avoid.why}
        </p>
      )}
      <Delivered supplier={supplier} />
      <SupplierForm supplier={supplier} saving={saving} />
      <Offers supplier={supplier} />
    </section>
  )
}

/** How it has delivered, beside what it promises. */
function Delivered({ supplier }: { supplier: Supplier }) {
  const { plan } = useSite()
  const was = deliveredBy(plan, supplier.id)
  if (!was) return null
  const days =
    was.least === was.most
      ? `${was.least} days`
      : `${was.least} to ${was.most} days, ${decimal(was.mean, 1)} on average`
  return (
    <p>
      {was.lines === 0
        ? 'Nothing has come whole yet.'
        : `Until now it took ${days}, over ${was.lines} ${was.lines === 1 ? 'line' : 'lines'}${supplier.leadDays === undefined ? '' : `; it promises ${supplier.leadDays}`}.`}
      {was.promised > 0 && ` Late: ${was.late} of ${was.promised}.`}
      {was.back > 0 && ` Sent back: ${was.back} of ${was.here} that came.`}
    </p>
  )
}

/** The terms of a supplier, or of a new one. */
export function SupplierForm({ supplier, saving }: { supplier: Supplier | null; saving: boolean }) {
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
            <td className={text.mono}>
              {`${decimal(offer.price, 2)} ${plan.policy.currency}`}
              <Earlier was={offer.was} />
            </td>
            <td>
              {offer.available ?? 'enough'}
              {termsOf(offer) && <span className={`${text.block} ${text.small} ${text.quiet}`}>{termsOf(offer)}</span>}
            </td>
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

/** What differs from the supplier's own terms. */
const termsOf = ({ leadDays, returnDays, excludes = [] }: Offer): string =>
  [
    ...(leadDays === undefined ? [] : [`${leadDays} days to deliver`]),
    ...(returnDays === undefined ? [] : [returnDays === 0 ? 'not taken back' : `back within ${returnDays} days`]),
    ...(excludes.length === 0 ? [] : [`not taken back from: ${excludes.join(', ')}`]),
  ].join('; ')

/** The last prices it had before, the newest first. */
function Earlier({ was = [] }: Pick<Offer, 'was'>) {
  if (was.length === 0) return null
  return (
    <span className={`${text.block} ${text.small} ${text.quiet}`}>
      before:{' '}
      {was
        .slice(-3)
        .reverse()
        .map(({ price, seen }) => `${decimal(price, 2)}${seen ? ` (${seen})` : ''}`)
        .join(', ')}
    </span>
  )
}
