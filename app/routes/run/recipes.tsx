import { Heading } from '@chakra-ui/react'
import { useMemo, useState } from 'react'
import { Link as RouterLink } from 'react-router'
import { offeredRecipes, type Recipe, recipesOf } from '../../../core/prove/recipes'
import type { Run } from '../../../core/vocabulary/run'
import text from '../../theme/text.module.css'
import { QuietButton } from '../../ui/controls'
import { GradeMark } from '../../ui/grade'
import { useSite } from '../../ui/site-context'
import { Take } from '../../ui/take'
import { Length } from '../../ui/units'
import look from '../prove/prove.module.css'

/** Chains that were accepted in other runs like this one, here and at the other sites of this Hallway. */
export function Recipes({ run }: { run: Run }) {
  const { plan, index, assessed, place } = useSite()
  const [others, setOthers] = useState<readonly Recipe[] | 'asked' | null>(null)
  const offered = useMemo(
    () => offeredRecipes(assessed, run, [...recipesOf(index), ...(Array.isArray(others) ? others : [])], place),
    [assessed, run, index, others, place],
  )
  const ask = () => {
    setOthers('asked')
    fetch(`/sites/${encodeURIComponent(plan.site.id)}/elsewhere`)
      .then((answer): Promise<{ recipes: Recipe[] }> => (answer.ok ? answer.json() : Promise.reject(answer.status)))
      .then(({ recipes }) => setOthers(recipes))
      // without an answer only what is known here is offered
      .catch(() => setOthers([]))
  }
  return (
    <section aria-labelledby="recipes" className={look.section}>
      <Heading as="h2" size="md" id="recipes" mb="2">
        Proved chains
      </Heading>
      {offered.length === 0 && (
        <p className={text.quiet}>No run between such ends, of this length or longer, was accepted yet.</p>
      )}
      <ul className={look.list}>
        {offered.map(({ recipe, grade, edit, missing }) => {
          const words = recipe.leads.map(({ kind }) => kind).join(' + ')
          return (
            <li key={JSON.stringify(recipe.leads)}>
              <b>{words}</b>{' '}
              {recipe.leads.map(({ length }, at) => (
                // biome-ignore lint/suspicious/noArrayIndexKey: the leads of a chain stand where they are
                <span key={at}>
                  {at > 0 && ' + '}
                  <Length metres={length} brief />
                </span>
              ))}
              : accepted {recipe.on} as {recipe.tag} of {recipe.site}, over <Length metres={recipe.route} brief />, to{' '}
              {recipe.deviceName}. {grade && <GradeMark grade={grade} />}
              {missing.length > 0 && (
                <>
                  {' '}
                  Your catalogue lacks {missing.join(' and ')}:{' '}
                  <RouterLink to={`/sites/${plan.site.id}/drawer/catalogue`} className={text.link}>
                    add it
                  </RouterLink>
                  .
                </>
              )}
              {edit && (
                <Take
                  name="choose leads"
                  about={[run.tag, words]}
                  edits={[edit]}
                  label={`Plan ${words} for ${run.tag}`}
                >
                  Plan this chain
                </Take>
              )}
            </li>
          )
        })}
      </ul>
      {others === null && (
        <QuietButton type="button" small onClick={ask}>
          Look at the other sites too
        </QuietButton>
      )}
      {others === 'asked' && <p className={text.quiet}>Looking at the other sites.</p>}
    </section>
  )
}
