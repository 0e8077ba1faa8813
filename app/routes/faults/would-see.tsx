import { Heading, Text } from '@chakra-ui/react'
import { data, Link as RouterLink } from 'react-router'
import { searchOf } from '../../../core/change/changes/searches'
import { wouldSee } from '../../../core/faults/would-see'
import text from '../../theme/text.module.css'
import { ErrorView } from '../../ui/error-view'
import { useSite } from '../../ui/site-context'
import type { Route } from './+types/would-see'
import look from './faults.module.css'
import { percent } from './next-view'
import { assessedSite, sceneAt } from './search-view.server'

/** Worked out from the parts of the run as it lies. */
export async function loader({ params }: Route.LoaderArgs) {
  const assessed = await assessedSite(params.site)
  const run = assessed.index.runs.get(params.run)
  if (!run) throw data(null, { status: 404 })
  return { causes: wouldSee(sceneAt(assessed, run)) }
}

/** The look the other way: what would be seen if something were wrong, and what tells it from what looks alike. */
export default function WouldSee({ loaderData, params }: Route.ComponentProps) {
  const { plan, index } = useSite()
  const run = index.runs.get(params.run)
  if (!run) return <ErrorView status={404} />
  const open = searchOf(plan, run.id)
  const home = `/sites/${plan.site.id}`
  return (
    <>
      <Heading as="h1" size="xl" mb="1">
        What would I see if something were wrong with {run.tag}?
      </Heading>
      <Text mb="2">
        Everything that can go wrong with this run, from its own parts, the likeliest first.{' '}
        <RouterLink to={open ? `${home}/faults/${open.id}` : `${home}/faults?run=${run.id}`} className={text.link}>
          {open ? 'The search that goes on here' : 'Something is wrong: search for it'}
        </RouterLink>
        {' ·\u00a0'}
        <RouterLink to={`${home}/runs/${run.id}`} className={text.link}>
          The run
        </RouterLink>
      </Text>
      <ul className={look.would}>
        {loaderData.causes.map(({ key, words, usual, source, shows, alike, tells }) => (
          <li key={key}>
            <h2>
              {words} <span className={text.quiet}>{percent(usual)} of the times</span>
            </h2>
            <p>
              {shows.length > 0
                ? `You would see: ${shows.map(({ saw, odds }) => `${saw.charAt(0).toLowerCase()}${saw.slice(1)} (${percent(odds)})`).join('; ')}.`
                : 'It may show anything.'}
            </p>
            {alike && (
              <p className={text.quiet}>
                Looks like: {alike}{' '}
                {tells
                  ? `What tells them apart: ${tells.how} “${tells.outcome}” comes ${percent(tells.odds)} of the times, and ${percent(tells.otherwise)} with the other.`
                  : 'Nothing at hand tells them apart.'}
              </p>
            )}
            <p className={text.small}>{source}</p>
          </li>
        ))}
      </ul>
    </>
  )
}
