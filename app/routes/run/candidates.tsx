import { Heading, Text } from '@chakra-ui/react'
import { memo, type RefObject, useMemo, useState } from 'react'
import { leadingFinding } from '../../../core/checks/assess'
import { narrowestOf } from '../../../core/checks/finding'
import { sentence } from '../../../core/checks/sentences'
import { formatFigure } from '../../../core/checks/wording'
import { candidateSentence } from '../../../core/match/candidate-sentence'
import { type Offer, offersOf } from '../../../core/match/offers'
import { candidatesOf } from '../../../core/match/rank'
import { type Choice, cheapestClear, together } from '../../../core/match/together'
import { leadKey } from '../../../core/vocabulary/run'
import text from '../../theme/text.module.css'
import { choose } from '../../ui/choice'
import { QuietButton } from '../../ui/controls'
import { GradeMark } from '../../ui/grade'
import { useSite } from '../../ui/site-context'
import { Length, useUnit } from '../../ui/units'
import { useAsked } from '../../ui/use-asked'
import look from './candidates.module.css'
import { SideBySide } from './side-by-side'
import type { RunDraft } from './use-draft'

const SHOWN = 8
/** Nobody reads further down than this; whoever wants a certain cable finds it in the form. */
const MOST = 60
/** While somebody types, the question is put once the typing rests for so long. */
const REST_MS = 120
/** So many stand side by side. */
const MOST_BESIDE = 4

type Props = { draft: RunDraft; formRef: RefObject<HTMLFormElement | null>; onChange: () => void }

const keyOf = (choice: Choice): string =>
  choice.from === 'drawer' ? choice.cable.id : leadKey({ kind: choice.kind.id, length: choice.length, reversed: false })

/**
 * Drawer and catalogue for this run as one list, best first, each with the reason in a line: what does it, by what margin, for how much, and what a dearer one
 * adds. A press puts it into the form; up to four stand side by side.
 */
export const Candidates = memo(RankedCandidates)

function RankedCandidates({ draft, formRef, onChange }: Props) {
  const { plan } = useSite()
  const { run, typed, index, crossings } = draft
  const [all, setAll] = useState(false)
  const [beside, setBeside] = useState<readonly string[]>([])
  const question = useMemo(() => ({ run: typed ?? run.id, most: MOST }), [typed, run.id])
  const state = useAsked('rank', question, typed ? REST_MS : 0)
  const ranking = state.last
  // what is shown is judged here, so that what is said of a cable is said of the run as it is typed
  const choices = useMemo(() => {
    const cables = (ranking?.best ?? []).slice(0, all ? MOST : SHOWN).flatMap((id) => index.cables.get(id) ?? [])
    return together(candidatesOf(index, run, crossings, cables), offersOf(index, run, crossings), index.plan.policy)
  }, [ranking, all, index, run, crossings])
  const cheapest = cheapestClear(choices)
  const chosen = new Set(run.leads.map(leadKey))
  const put = (key: string) => {
    const select = formRef.current?.elements.namedItem('leads[0]')
    if (!(select instanceof HTMLSelectElement)) return
    choose(select, key)
    onChange()
  }
  const more = Math.min(ranking?.best.length ?? 0, MOST)
  return (
    <section aria-labelledby="candidates-heading" aria-busy={state.step === 'asking'}>
      <Heading as="h2" size="md" mt="6" mb="2" id="candidates-heading">
        Cables that fit here, best first
      </Heading>
      {state.step === 'failed' && <Text color="blocked">The drawer could not be ranked. Reload the page.</Text>}
      {state.step === 'asking' && !ranking && <Text color="quiet">Ranking the drawer.</Text>}
      {ranking?.count === 0 && <Text color="quiet">No single cable of the drawer plugs into both ports.</Text>}
      {plan.kinds.length === 0 && (
        <Text color="quiet">The catalogue is empty: what shops sell is entered under Drawer, Catalogue.</Text>
      )}
      <ol>
        {choices.map((choice) => {
          const key = keyOf(choice)
          return (
            <ChoiceLine
              key={key}
              choice={choice}
              cheapest={cheapest}
              chosen={chosen.has(key)}
              put={() => put(key)}
              beside={beside.includes(key)}
              full={beside.length >= MOST_BESIDE}
              setBeside={(on) => setBeside(on ? [...beside, key] : beside.filter((each) => each !== key))}
            />
          )
        })}
      </ol>
      {more > SHOWN && (
        <p className={look.more}>
          <QuietButton type="button" small onClick={() => setAll(!all)} aria-expanded={all}>
            {all
              ? 'Show fewer'
              : `Show ${ranking && ranking.count > more ? `${more} of ${ranking.count}` : `all ${more}`} of the drawer`}
          </QuietButton>
        </p>
      )}
      {beside.length > 0 && (
        <SideBySide draft={draft} choices={choices.filter((choice) => beside.includes(keyOf(choice)))} />
      )}
    </section>
  )
}

function ChoiceLine({
  choice,
  cheapest,
  chosen,
  put,
  beside,
  full,
  setBeside,
}: {
  choice: Choice
  cheapest: Choice | undefined
  chosen: boolean
  put: () => void
  beside: boolean
  full: boolean
  setBeside: (on: boolean) => void
}) {
  const unit = useUnit()
  const { plan } = useSite()
  const drawer = choice.from === 'drawer'
  const name = drawer ? choice.cable.tag : choice.kind.name
  return (
    <li className={look.candidate}>
      <span className={look.grade}>
        <GradeMark grade={choice.verdict.grade} />
      </span>
      <span className={look.reason}>
        <span className={drawer ? `${text.mono} ${text.strong}` : text.strong}>{name}</span>{' '}
        <Length metres={drawer ? choice.cable.length : choice.length} brief />{' '}
        <span className={text.quiet}>
          {drawer
            ? 'from the drawer'
            : choice.price === null
              ? 'to buy, price to be asked'
              : `to buy, ${choice.price} ${plan.policy.currency}`}
        </span>
        . {drawer ? candidateSentence(choice, unit) : whatItBuys(choice, cheapest, unit)}
        <label className={`${text.block} ${text.small}`}>
          <input
            type="checkbox"
            checked={beside}
            disabled={!beside && full}
            onChange={({ currentTarget }) => setBeside(currentTarget.checked)}
          />{' '}
          side by side
        </label>
      </span>
      {chosen ? (
        <b>chosen</b>
      ) : (
        <QuietButton type="button" small onClick={put} aria-label={drawer ? `Choose ${name}` : `Plan with ${name}`}>
          {drawer ? 'Choose' : 'Plan with'}
        </QuietButton>
      )}
    </li>
  )
}

/** Why what is to be bought does not do, or what it buys over the cheapest that does, which may lie in the drawer. */
function whatItBuys({ verdict, price }: Offer, cheapest: Choice | undefined, unit: 'm' | 'ft'): string {
  const leading = leadingFinding(verdict.findings)
  if (verdict.grade !== 'clear') return leading ? sentence(leading, unit) : ''
  const value = verdict.findings.find(({ check }) => check === 'value')
  const squeeze = narrowestOf(verdict.findings)
  const left = squeeze ? squeeze.have - squeeze.need : 0
  const spare = squeeze ? (left > 0 ? `${formatFigure(left, squeeze.unit)} to spare. ` : 'Just enough. ') : ''
  if (!cheapest || cheapest.verdict === verdict)
    return `${spare}The cheapest that does it.${value ? ` ${sentence(value, unit)}` : ''}`
  const least = cheapest.from === 'drawer' ? 0 : cheapest.price
  const dearer = price !== null && least !== null && price > least
  const first = narrowestOf(cheapest.verdict.findings)
  const than = cheapest.from === 'drawer' ? cheapest.cable.tag : 'the cheapest'
  const adds =
    squeeze && first && squeeze.have > first.have
      ? `${formatFigure(squeeze.have - first.have, squeeze.unit)} more than ${than}.`
      : 'It adds nothing here: another part is the limit.'
  return `${spare}${dearer ? `Dearer; ${adds.replace(/^It/, 'it')}` : adds}`
}
