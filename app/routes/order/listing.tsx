import { Heading, Text } from '@chakra-ui/react'
import { useMemo, useState } from 'react'
import { data, redirect, useNavigation } from 'react-router'
import type { Edit } from '../../../core/change/change'
import { putKinds } from '../../../core/change/changes/kinds'
import { observed } from '../../../core/change/changes/observations'
import type { Unwritten } from '../../../core/observe/observation'
import { type Listing, LONGEST_LISTING, readListing } from '../../../core/order/listing'
import { slugOf } from '../../../core/plan/free-id'
import { formatLength } from '../../../core/quantity/length'
import { type Parsed, parsed, unreadable } from '../../../core/quantity/parsed'
import { connectorNames } from '../../../core/standards/connectors'
import { gradeFacts } from '../../../core/standards/grades'
import { type CableKind, cableKindSchema } from '../../../core/vocabulary/cable'
import { refused } from '../../../server/sites/change-site'
import { readForm } from '../../read-form.server'
import { addressWith, baseOf, changeBy, whyNotSaved } from '../../stored.server'
import text from '../../theme/text.module.css'
import { MadeFrom } from '../../ui/change-fields'
import { MainButton, Notice } from '../../ui/controls'
import { LabelledField, PlainInput, PlainTextArea, plainField } from '../../ui/field'
import { Form } from '../../ui/form'
import { RuledTable } from '../../ui/ruled-table'
import { useSite } from '../../ui/site-context'
import { useUnit } from '../../ui/units'
import { handOf } from '../../who.server'
import { witnessOf } from '../../witness.server'
import type { Route } from './+types/listing'
import look from './order.module.css'
import { OrderLinks } from './order-links'

/** As much of a shop page as a note takes is kept with the kind. */
const LONGEST_NOTE = 2000

/** The kind that a listing would be: only where it says each thing once. */
function kindOf(form: FormData): Parsed<CableKind> {
  const said = String(form.get('text') ?? '')
  const { ends, grade, length, construction, problems } = readListing(said)
  if (!ends || !grade || length === null)
    return unreadable(
      'the listing does not say once and clearly which plugs it has, what it carries and how long it is',
    )
  const price = Number(String(form.get('price') ?? '').replace(',', '.'))
  const name = String(form.get('name') ?? '').trim()
  const note = ['From a listing.', ...problems, said.trim()].join('\n').slice(0, LONGEST_NOTE)
  const read = cableKindSchema.safeParse({
    id: slugOf(name, 'kind'),
    name,
    ends: ends.map((connector) => ({ connector })),
    grade,
    ...(construction === null ? {} : { construction }),
    stock: [{ length, price }],
    note,
  })
  if (read.success) return parsed(read.data)
  return unreadable(
    read.error.issues[0]?.path[0] === 'name' ? 'give it a name of 1 to 120 letters' : 'say what it costs',
  )
}

/**
 * A listing as a kind of the catalogue. What it claims is written down as its seller's word, the weakest there is, and so is each answer that the seller gave.
 */
export async function action({ request, params }: Route.ActionArgs) {
  const form = await readForm(request)
  const hand = await handOf(request, form)
  const witness = witnessOf(hand)
  const saved = await changeBy(hand, params.site, ({ plan }) => {
    const kind = kindOf(form)
    if (!kind.ok) return refused('listing', kind.problem)
    const { draft, added } = putKinds(plan, baseOf(form), [kind.value])
    const [edit] = draft.edits
    if (!edit || added === 0) return refused('name', 'the catalogue has a kind of this name already')
    const said = observed(saidBy(form), { kind: edit.id }, witness)
    return {
      ...draft,
      edits: [
        ...draft.edits,
        ...said.map((value): Edit => ({ list: 'observations', id: value.id, base: null, value })),
      ],
    }
  })
  if (saved?.outcome === 'saved')
    return redirect(addressWith(`/sites/${params.site}/drawer/catalogue`, { took: saved.id }))
  const { problem, status } = whyNotSaved(saved)
  return data({ problem, text: String(form.get('text') ?? ''), name: String(form.get('name') ?? '') }, { status })
}

const LONGEST_ANSWER = 400

/** What the listing claims, and what its seller answered, each as somebody's word. */
function saidBy(form: FormData): Unwritten[] {
  const { grade, claims, questions } = readListing(String(form.get('text') ?? ''))
  const answers = form.getAll('answer').map((each) => String(each).trim().slice(0, LONGEST_ANSWER))
  const claimed = claims.map(({ sort, says, words }) => `${sort}: ${says} (“${words}”)`).join('\n')
  return [
    {
      kind: 'statement',
      basis: 'listed',
      from: SELLER,
      ...(grade ? { grade } : {}),
      ...(claimed === '' ? {} : { note: claimed.slice(0, LONGEST_NOTE) }),
    },
    ...questions.flatMap((question, at): Unwritten[] =>
      answers[at] ? [{ kind: 'statement', basis: 'told', from: SELLER, note: `${question} ${answers[at]}` }] : [],
    ),
  ]
}
const SELLER = 'the seller'

/** Reads a shop page: what it claims, what of it cannot be, and what to ask before anything is bought. */
export default function ListingPage({ actionData }: Route.ComponentProps) {
  const { plan } = useSite()
  const saving = useNavigation().state === 'submitting'
  const [typed, setTyped] = useState(actionData?.text ?? '')
  const listing = useMemo(() => readListing(typed), [typed])
  const complete = listing.ends !== null && listing.grade !== null && listing.length !== null
  return (
    <>
      <div className={look.head}>
        <Heading as="h1" size="xl">
          Read a listing
        </Heading>
        <OrderLinks />
      </div>
      <Text mb="3">
        Paste the text of a shop page. Hallway picks out what it claims, says what cannot be, and what to ask the
        seller.
      </Text>
      {actionData?.problem && <Notice tone="blocked">{actionData.problem}</Notice>}
      <Form method="post">
        <MadeFrom />
        <LabelledField field={plainField('text')} label="Text of the shop page">
          <PlainTextArea
            id="field-text"
            name="text"
            rows={7}
            maxLength={LONGEST_LISTING}
            value={typed}
            onChange={({ currentTarget }) => setTyped(currentTarget.value)}
          />
        </LabelledField>
        {typed.trim() !== '' && <Claims listing={listing} />}
        <div className={look.form}>
          <LabelledField field={plainField('name')} label="Name in the catalogue">
            <PlainInput id="field-name" name="name" maxLength={120} defaultValue={actionData?.name ?? ''} />
          </LabelledField>
          <LabelledField field={plainField('price')} label={`Price, ${plan.policy.currency}`}>
            <PlainInput id="field-price" name="price" inputMode="decimal" />
          </LabelledField>
          <MainButton loading={saving}>Add to the catalogue</MainButton>
        </div>
        {typed.trim() !== '' && !complete && (
          <p className={text.quiet}>
            It can be added once the listing says which plugs it has, what it carries and how long it is, each once.
          </p>
        )}
      </Form>
    </>
  )
}

function Claims({ listing: { claims, problems, missing, questions, ends, grade, length } }: { listing: Listing }) {
  const unit = useUnit()
  return (
    <>
      {claims.length === 0 ? (
        <Text my="3">It claims nothing that Hallway can read.</Text>
      ) : (
        <div className={look.block}>
          <RuledTable label="What it claims" columns={['What', 'As Hallway reads it', 'Its words']} cards>
            {claims.map(({ sort, says, words }) => (
              <tr key={`${sort} ${words}`}>
                <td>{sort}</td>
                <td>{says}</td>
                <td className={text.quiet}>“{words}”</td>
              </tr>
            ))}
          </RuledTable>
        </div>
      )}
      {ends && grade && length !== null && (
        <p>
          It would be entered as {connectorNames[ends[0]]} to {connectorNames[ends[1]]}, {gradeFacts[grade].name},{' '}
          {formatLength(length, unit)}.
        </p>
      )}
      {problems.length > 0 && (
        <Notice tone="blocked">
          <ul>
            {problems.map((each) => (
              <li key={each}>{each}</li>
            ))}
          </ul>
        </Notice>
      )}
      {missing.length > 0 && <p className={look.block}>It does not say {missing.join(', ')}.</p>}
      {questions.length > 0 && (
        <section className={look.block} aria-labelledby="ask-heading">
          <Heading as="h2" size="md" mb="1" id="ask-heading">
            Ask the seller
          </Heading>
          <ul>
            {questions.map((each) => (
              <li key={each}>
                {each}
                <PlainInput name="answer" maxLength={400} aria-label={`Answer to: ${each}`} placeholder="the answer" />
              </li>
            ))}
          </ul>
          <p className={text.quiet}>Answers are kept with the kind, as its seller's word.</p>
        </section>
      )}
    </>
  )
}
