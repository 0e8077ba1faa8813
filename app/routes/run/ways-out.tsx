import { Heading, Text } from '@chakra-ui/react'
import { useMemo } from 'react'
import type { RunVerdict } from '../../../core/checks/assess'
import { sentence } from '../../../core/checks/sentences'
import { gradeWords } from '../../../core/checks/wording'
import { decimal } from '../../../core/quantity/parsed'
import type { WayOut } from '../../../core/remedy/search'
import { effortWords, moveSentence } from '../../../core/remedy/words'
import text from '../../theme/text.module.css'
import { GradeMark } from '../../ui/grade'
import { useSite } from '../../ui/site-context'
import { Take } from '../../ui/take'
import { useUnit } from '../../ui/units'
import { useAsked } from '../../ui/use-asked'
import look from './ways-out.module.css'

/** What would make the run clear: small changes that were tried on the whole site, the least disruptive first, each to be taken as one change. */
export function WaysOut({ verdict }: { verdict: RunVerdict }) {
  const unit = useUnit()
  const question = useMemo(() => ({ run: verdict.id }), [verdict.id])
  const { step, last } = useAsked('ways', question)
  return (
    <section aria-labelledby="ways-heading" aria-busy={step === 'asking'} className={look.section}>
      <Heading as="h2" size="md" mb="1" id="ways-heading">
        What would make it clear
      </Heading>
      {step === 'failed' && <Text color="blocked">This could not be worked out. Reload the page.</Text>}
      {step === 'asking' && !last && <Text color="quiet">Trying small changes on the whole site.</Text>}
      {last && last.ways.length > 0 && (
        <>
          <p className={`${text.small} ${text.quiet}`}>
            {last.tried} {last.tried === 1 ? 'change was' : 'changes were'} tried; these help, the least disruptive
            first.
          </p>
          <ol className={look.ways}>
            {last.ways.map((way) => (
              <Way key={JSON.stringify(way.moves)} way={way} tag={verdict.tag} />
            ))}
          </ol>
        </>
      )}
      {last && last.prove.length > 0 && (
        <p className={look.prove}>
          <b>Prove {last.prove.join(' and ')} on the bench, in this socket.</b> Evidence is all that is missing.
        </p>
      )}
      {last?.closest && last.prove.length === 0 && (
        <div className={look.nothing}>
          <p>
            {last.elsewhere ? (
              <>
                <b>
                  {last.elsewhere.cable} would do, and lies in {last.elsewhere.run}.
                </b>{' '}
                Have another like it, or move it.{' '}
              </>
            ) : (
              <b>No small change helps.</b>
            )}{' '}
            {last.tried > 0 &&
              `${last.tried} ${last.tried === 1 ? 'change was' : 'changes were'} tried, alone and two together. `}
            {last.closest.moves.length > 0 &&
              `The nearest: ${last.closest.moves.map((move) => moveSentence(move, unit)).join(' ')} `}
            What is still wrong: {sentence(last.closest.leading, unit)}
          </p>
        </div>
      )}
    </section>
  )
}

function Way({ way, tag }: { way: WayOut; tag: string }) {
  const unit = useUnit()
  const { plan } = useSite()
  const words = way.moves.map((move) => moveSentence(move, unit))
  const price =
    way.price === null
      ? 'price to be asked'
      : way.price === 0
        ? 'costs nothing'
        : `${decimal(way.price, 2)} ${plan.policy.currency}`
  return (
    <li className={look.way}>
      <span className={look.grade}>
        <GradeMark grade={way.after} />
      </span>
      <div className={look.what}>
        <p>{words.join(' ')}</p>
        <p className={`${text.tiny} ${text.quiet}`}>
          {effortWords[way.effort]}, {price}
        </p>
        {way.worse.length > 0 && (
          <p className={look.worse}>
            Worse elsewhere:{' '}
            {way.worse
              .map(({ label, from, to }) => `${label} ${from ? `from ${gradeWords[from]} ` : ''}to ${gradeWords[to]}`)
              .join('; ')}
            .
          </p>
        )}
      </div>
      <Take name="follow advice" about={[tag, ...words]} edits={way.edits} label={`Do it: ${words.join(' ')}`}>
        Do it
      </Take>
    </li>
  )
}
