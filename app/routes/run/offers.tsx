import { Heading, Text } from '@chakra-ui/react'
import { type RefObject, useMemo, useState } from 'react'
import { leadingFinding, type RunVerdict } from '../../../core/checks/assess'
import { GRADES, marginOf, narrowestOf } from '../../../core/checks/finding'
import { formatFigure, sentence } from '../../../core/checks/sentences'
import { openingOf } from '../../../core/link/doors'
import { type Offer, offersOf } from '../../../core/match/offers'
import { laidCables, leadKey } from '../../../core/plan/run'
import { cableToBuy } from '../../../core/plan/site-index'
import { formatRate } from '../../../core/quantity/rate'
import { formatWatts } from '../../../core/quantity/watts'
import { gradeFacts } from '../../../core/standards/grades'
import text from '../../theme/text.module.css'
import { choose } from '../../ui/choice'
import { QuietButton } from '../../ui/controls'
import { DoorStrip } from '../../ui/door-strip'
import { GradeMark } from '../../ui/grade'
import { RuledTable } from '../../ui/ruled-table'
import { useSite } from '../../ui/site-context'
import { SqueezeBar } from '../../ui/squeeze-bar'
import { Length, useUnit } from '../../ui/units'
import look from './ranking.module.css'
import type { Draft } from './use-draft'

type Props = { draft: Draft; formRef: RefObject<HTMLFormElement | null>; onChange: () => void }

/** So many stand side by side. */
const MOST_BESIDE = 4

/** What could be bought for this run, the cheapest that does it first; what a dearer one adds, and what it cannot add as another part is the limit. */
export function Offers({ draft, formRef, onChange }: Props) {
  const unit = useUnit()
  const { plan } = useSite()
  const { index, run, crossings } = draft
  const offers = useMemo(() => ranked(offersOf(index, run, crossings)), [index, run, crossings])
  const [beside, setBeside] = useState<readonly string[]>([])
  if (plan.kinds.length === 0)
    return <Text color="quiet">The catalogue is empty: what shops sell is entered under Drawer, Catalogue.</Text>
  const put = ({ kind, length }: Offer) => {
    const select = formRef.current?.elements.namedItem('leads[0]')
    if (!(select instanceof HTMLSelectElement)) return
    choose(select, leadKey({ kind: kind.id, length, reversed: false }))
    onChange()
  }
  const chosen = new Set(run.leads.map(leadKey))
  const key = ({ kind, length }: Offer): string => leadKey({ kind: kind.id, length, reversed: false })
  const compared = offers.filter((offer) => beside.includes(key(offer)))
  const [first] = offers
  return (
    <section aria-labelledby="offers-heading">
      <Heading as="h2" size="md" mt="6" mb="2" id="offers-heading">
        From the catalogue
      </Heading>
      {offers.length === 0 && <Text color="quiet">Nothing of the catalogue plugs into both ports.</Text>}
      <ol>
        {offers.map((offer) => (
          <li key={key(offer)} className={look.candidate}>
            <span className={look.grade}>
              <GradeMark grade={offer.verdict.grade} />
            </span>
            <span className={look.reason}>
              <b>{offer.kind.name}</b> <Length metres={offer.length} brief />
              {offer.price !== null && (
                <>
                  {' '}
                  <span className={text.mono}>
                    {offer.price} {plan.policy.currency}
                  </span>
                </>
              )}
              . {whatItBuys(offer, first, offers, unit)}
              <label className={`${text.block} ${text.small}`}>
                <input
                  type="checkbox"
                  checked={beside.includes(key(offer))}
                  disabled={!beside.includes(key(offer)) && beside.length >= MOST_BESIDE}
                  onChange={({ currentTarget }) =>
                    setBeside(
                      currentTarget.checked ? [...beside, key(offer)] : beside.filter((each) => each !== key(offer)),
                    )
                  }
                />{' '}
                side by side
              </label>
            </span>
            {chosen.has(key(offer)) ? (
              <b>chosen</b>
            ) : (
              <QuietButton type="button" small onClick={() => put(offer)} aria-label={`Plan with ${offer.kind.name}`}>
                Plan with
              </QuietButton>
            )}
          </li>
        ))}
      </ol>
      {compared.length > 0 && <SideBySide draft={draft} offers={compared} />}
    </section>
  )
}

const ranked = (offers: readonly Offer[]): Offer[] =>
  [...offers].sort(
    (one, other) =>
      GRADES.indexOf(other.verdict.grade) - GRADES.indexOf(one.verdict.grade) ||
      (one.price ?? Number.MAX_VALUE) - (other.price ?? Number.MAX_VALUE),
  )

/** Why an offer does not do, or what it buys over the cheapest that does. */
function whatItBuys(
  { verdict, price }: Offer,
  first: Offer | undefined,
  offers: readonly Offer[],
  unit: 'm' | 'ft',
): string {
  const leading = leadingFinding(verdict.findings)
  if (verdict.grade !== 'clear') return leading ? sentence(leading, unit) : ''
  const value = verdict.findings.find(({ check }) => check === 'value')
  const squeeze = narrowestOf(verdict.findings)
  const spare = squeeze ? `${formatFigure(squeeze.have - squeeze.need, squeeze.unit)} to spare. ` : ''
  if (!first || first.verdict === verdict)
    return `${spare}${offers.length > 1 ? 'The cheapest that does it.' : ''}${value ? ` ${sentence(value, unit)}` : ''}`
  const dearer = price !== null && first.price !== null && price > first.price
  const firstSqueeze = narrowestOf(first.verdict.findings)
  const more = squeeze && firstSqueeze && squeeze.have > firstSqueeze.have
  const adds = more
    ? `${formatFigure(squeeze.have - firstSqueeze.have, squeeze.unit)} more than the cheapest.`
    : 'It adds nothing here: another part is the limit.'
  return `${spare}${dearer ? `Dearer; ${adds.replace(/^It/, 'it')}` : adds}`
}

/** Weight, stiffness, straps and plugs, where somebody has said. */
const handWords = ({ hand }: Offer['kind']): string =>
  [
    hand?.gramsPerMetre === undefined ? '' : `${hand.gramsPerMetre} g/m`,
    hand?.feel ?? '',
    hand?.strap ? 'with a strap' : '',
    hand?.angled ? 'a plug at a right angle' : '',
  ]
    .filter(Boolean)
    .join(', ') || 'not said'

/** Door by door: what each lead passes here, beside the one that is planned now. */
function SideBySide({ draft, offers }: { draft: Draft; offers: readonly Offer[] }) {
  const unit = useUnit()
  const { plan } = useSite()
  const now = { name: laidCables(draft.run).length > 0 ? 'As planned' : 'Without', verdict: draft.verdict, offer: null }
  const columns: { name: string; verdict: RunVerdict; offer: Offer | null }[] = [
    now,
    ...offers.map((offer) => ({ name: offer.kind.name, verdict: offer.verdict, offer })),
  ]
  const row = (label: string, cell: (column: (typeof columns)[number]) => React.ReactNode) => (
    <tr>
      <th scope="row">{label}</th>
      {columns.map((column) => (
        <td key={column.name}>{cell(column)}</td>
      ))}
    </tr>
  )
  return (
    <RuledTable wide label="Side by side" columns={['', ...columns.map(({ name }) => name)]}>
      {row('Verdict', ({ verdict }) => (
        <GradeMark grade={verdict.grade} size="xs" />
      ))}
      {row('Doors', ({ verdict }) => (
        <DoorStrip verdict={verdict} />
      ))}
      {row('The lead passes', ({ verdict }) => {
        const leads = verdict.doors.filter(({ kind }) => kind === 'lead')
        const least = leads.length > 0 ? Math.min(...leads.map(openingOf)) : 0
        return least > 0 ? formatRate(least) : 'nothing'
      })}
      {row('Need against door', ({ verdict }) => {
        const squeeze = narrowestOf(verdict.findings)
        return squeeze ? <SqueezeBar squeeze={squeeze} /> : ''
      })}
      {row('Power', ({ verdict }) => {
        const watts = verdict.doors.filter(({ kind }) => kind === 'lead').map((door) => door.watts)
        return watts.length > 0 ? formatWatts(Math.min(...watts)) : ''
      })}
      {row('Made', ({ offer }) =>
        offer ? `${gradeFacts[offer.kind.grade].name}, ${cableToBuy(offer.kind, offer.length).construction}` : '',
      )}
      {row('In the hand', ({ offer }) => (offer ? handWords(offer.kind) : ''))}
      {row('Price', ({ offer }) => (offer?.price == null ? '' : `${offer.price} ${plan.policy.currency}`))}
      {row('What is short', ({ verdict }) => {
        const short = verdict.findings.find((finding) => finding.grade === 'blocked' && (marginOf(finding) ?? 0) < 0)
        return short ? sentence(short, unit) : ''
      })}
    </RuledTable>
  )
}
