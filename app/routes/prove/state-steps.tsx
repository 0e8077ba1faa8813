import type { RunProof, RunState } from '../../../core/prove/proof'
import { stateWords } from '../../../core/prove/test-words'
import look from './prove.module.css'

const STEPS = ['planned', 'laid', 'proved', 'accepted'] as const satisfies RunState[]

/** What a run that lies may say beside it: that its proof is stale, or that a test failed. */
const BESIDE: Partial<Record<RunState, string>> = { stale: 'proof is stale', failed: 'a test failed' }

/** The way of a run from plan to acceptance, and where it stands. One that is stale or failed stands before its proof again. */
export function StateSteps({ proof }: { proof: RunProof }) {
  const beside = BESIDE[proof.state]
  const here = STEPS.find((step) => step === proof.state) ?? 'laid'
  const reached = STEPS.indexOf(here)
  return (
    <ol className={look.states} aria-label="How far it has come">
      {STEPS.map((step, at) => (
        <li
          key={step}
          data-reached={at <= reached || undefined}
          aria-current={step === here ? 'step' : undefined}
          title={stateWords[step].says}
        >
          <span>
            {stateWords[step].name}
            {step === here && beside && `, ${beside}`}
          </span>
        </li>
      ))}
    </ol>
  )
}
