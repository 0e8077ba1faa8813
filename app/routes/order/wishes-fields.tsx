import { RISKS } from '../../../core/order/choices'
import { usualWishes } from '../../../core/order/wishes'
import { MainButton } from '../../ui/controls'
import { LabelledField, PlainInput, PlainSelect, plainField } from '../../ui/field'
import { Form } from '../../ui/form'
import { useSite } from '../../ui/site-context'
import look from './order.module.css'
import { riskWords } from './order-words'
import { riskField, SPARES } from './wishes-form'

/** What is wished of an order; what is said by buttons goes along. */
export function WishesFields({ params }: { params: URLSearchParams }) {
  const { plan } = useSite()
  const figure = (name: string, label: string, usual = '', placeholder = '') => (
    <LabelledField field={plainField(name)} label={label}>
      <PlainInput
        id={`field-${name}`}
        name={name}
        inputMode="decimal"
        defaultValue={params.get(name) ?? usual}
        placeholder={placeholder}
      />
    </LabelledField>
  )
  const said = (['keep', 'without', 'allow'] as const).flatMap((name) =>
    params.getAll(name).map((id) => ({ name, id })),
  )
  return (
    <Form className={look.wishes} key={params.toString()}>
      <div className={look.form}>
        {figure('days', 'Here within, days', '', 'any')}
        {figure('budget', `Costs at most, ${plan.policy.currency}`, '', 'no limit')}
        {figure('article', 'One more article is worth', String(usualWishes.perArticle))}
        <LabelledField field={plainField('spares')} label="Spares">
          <PlainSelect id="field-spares" name="spares" defaultValue={params.get('spares') ?? 'tenth'}>
            {Object.entries(SPARES).map(([name, { words }]) => (
              <option key={name} value={name}>
                {words}
              </option>
            ))}
          </PlainSelect>
        </LabelledField>
        {plan.upgrades.length > 0 && (
          <LabelledField field={plainField('for')} label="Ready for">
            <PlainSelect id="field-for" name="for" defaultValue={params.get('for') ?? ''}>
              <option value="">what is needed today</option>
              {plan.upgrades.map(({ id, name }) => (
                <option key={id} value={id}>
                  {name}
                </option>
              ))}
            </PlainSelect>
          </LabelledField>
        )}
        {said.map(({ name, id }) => (
          <input key={`${name} ${id}`} type="hidden" name={name} value={id} />
        ))}
        <MainButton>Decide again</MainButton>
      </div>
      <details>
        <summary>What risk is worth to you</summary>
        <p>
          What you would pay to spare one run this. These are Hallway's own judgement, not figures of the trade: put in
          yours.
        </p>
        <div className={look.form}>
          {figure('tight', 'It is only tight', String(usualWishes.perTight))}
          {figure('joint', 'One more joint', String(usualWishes.perJoint))}
          {RISKS.map((risk) => (
            <LabelledField key={risk} field={plainField(riskField(risk))} label={capital(riskWords[risk])}>
              <PlainInput
                id={`field-${riskField(risk)}`}
                name={riskField(risk)}
                inputMode="decimal"
                defaultValue={params.get(riskField(risk)) ?? String(usualWishes.perRisk[risk])}
              />
            </LabelledField>
          ))}
          {figure('holds', 'A kind that nobody tried holds, in percent', String(usualWishes.holds * 100))}
        </div>
      </details>
    </Form>
  )
}

const capital = (words: string): string => `${words.charAt(0).toUpperCase()}${words.slice(1)}`
