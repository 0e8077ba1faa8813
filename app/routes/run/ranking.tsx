import { Box, Heading, Text } from '@chakra-ui/react'
import { type RefObject, useMemo, useState } from 'react'
import { candidateSentence } from '../../../core/match/candidate-sentence'
import { candidatesOf } from '../../../core/match/rank'
import { laidCables } from '../../../core/plan/run'
import text from '../../theme/text.module.css'
import { choose } from '../../ui/choice'
import { QuietButton } from '../../ui/controls'
import { GradeMark } from '../../ui/grade'
import { Length, useUnit } from '../../ui/units'
import { useAsked } from '../../ui/use-asked'
import look from './ranking.module.css'
import type { Draft } from './use-draft'

const SHOWN = 8
/** Nobody reads further down than this; whoever wants a certain cable finds it in the list above. */
const MOST = 60
/** While somebody types, the question is put once the typing rests for so long. */
const REST_MS = 120

type Props = { draft: Draft; formRef: RefObject<HTMLFormElement | null>; onChange: () => void }

/** The drawer for this run, best first, with the reason in a line; a click puts the cable into the form. */
export function Ranking({ draft, formRef, onChange }: Props) {
  const unit = useUnit()
  const { run, typed, index, crossings } = draft
  const [all, setAll] = useState(false)
  const question = useMemo(() => ({ run: typed ?? run.id, most: MOST }), [typed, run.id])
  const state = useAsked('rank', question, typed ? REST_MS : 0)
  const ranking = state.last
  // what is shown is judged here, so that what is said of a cable is said of the run as it is typed
  const shown = useMemo(() => {
    const cables = (ranking?.best ?? []).slice(0, all ? MOST : SHOWN).flatMap((id) => index.cables.get(id) ?? [])
    return candidatesOf(index, run, crossings, cables)
  }, [ranking, all, index, run, crossings])
  const chosen = new Set(laidCables(run))
  const chooseLead = (cable: string) => {
    const select = formRef.current?.elements.namedItem('leads[0]')
    if (!(select instanceof HTMLSelectElement)) return
    choose(select, cable)
    onChange()
  }
  const more = Math.min(ranking?.best.length ?? 0, MOST)
  return (
    <Box as="section" aria-labelledby="drawer-heading" aria-busy={state.step === 'asking'} mt="6">
      <Heading as="h2" size="md" mb="2" id="drawer-heading">
        From the drawer, best first
      </Heading>
      {state.step === 'failed' && <Text color="blocked">The drawer could not be ranked. Open the page once more.</Text>}
      {state.step === 'asking' && !ranking && <Text color="quiet">Ranking the drawer.</Text>}
      {ranking?.count === 0 && <Text color="quiet">No single cable of the drawer plugs into both ports.</Text>}
      <ol>
        {shown.map((candidate) => (
          <li key={candidate.cable.id} className={look.candidate}>
            <span className={look.grade}>
              <GradeMark grade={candidate.grade} />
            </span>
            <span className={look.reason}>
              <span className={`${text.mono} ${text.strong}`}>{candidate.cable.tag}</span>{' '}
              <Length metres={candidate.cable.length} /> {candidateSentence(candidate, unit)}
            </span>
            {chosen.has(candidate.cable.id) ? (
              <b>chosen</b>
            ) : (
              <QuietButton
                type="button"
                small
                onClick={() => chooseLead(candidate.cable.id)}
                aria-label={`Choose ${candidate.cable.tag}`}
              >
                Choose
              </QuietButton>
            )}
          </li>
        ))}
      </ol>
      {more > SHOWN && (
        <Box mt="2">
          <QuietButton type="button" small onClick={() => setAll(!all)} aria-expanded={all}>
            {all
              ? 'Show fewer'
              : `Show ${ranking && ranking.count > more ? `${more} of ${ranking.count}` : `all ${more}`}`}
          </QuietButton>
        </Box>
      )}
    </Box>
  )
}
