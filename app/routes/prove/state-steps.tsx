import type { RunProof, RunState } from '../../../core/prove/proof'
import { stateWords } from '../../../core/prove/test-words'
import look from './prove.module.css'

const STEPS = ['planned', 'laid', 'proved', 'accepted'] as const satisfies RunState[]

/** The way of a run from plan to acceptance, and where it stands. One that is stale stands before its proof again. */
export function StateSteps({ proof }: { proof: RunProof }) {
  const here = proof.state === 'stale' ? 'laid' : proof.state
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
            {step === here && proof.state === 'stale'
              ? `${stateWords.laid.name}, proof is stale`
              : stateWords[step].name}
          </span>
        </li>
      ))}
    </ol>
  )
}
