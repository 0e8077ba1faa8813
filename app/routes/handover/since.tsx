import { Heading, Text } from '@chakra-ui/react'
import { Link as RouterLink } from 'react-router'
import { sinceTitles } from '../../../core/handover/since-sorts'
import { sinceHandover } from '../../off-thread.server'
import text from '../../theme/text.module.css'
import { QuietButton } from '../../ui/controls'
import { Moment } from '../../ui/moment'
import { RuledTable } from '../../ui/ruled-table'
import { useSite } from '../../ui/site-context'
import type { Route } from './+types/since'
import { DrawingView } from './block-view'
import { answered, handoverIn } from './handed.server'
import look from './handover.module.css'

export async function loader({ params }: Route.LoaderArgs) {
  const handover = await handoverIn(params.site, params.handover)
  return {
    handover,
    ...answered(await sinceHandover({ siteId: params.site, handover: handover.id })),
  }
}

/** Lines of one sort that are shown; the table has all. */
const MOST_LINES = 200

/** What has changed since a handover: a supplement to its book, with what is new standing out on the floors. */
export default function SincePage({ loaderData, params }: Route.ComponentProps) {
  const { handover, since, floors } = loaderData
  const { plan } = useSite()
  const home = `/sites/${plan.site.id}`
  const here = `${home}/handover/${params.handover}`
  return (
    <article className={look.book}>
      <Heading as="h1" size="xl" mb="1">
        What has changed since {handover.name}
      </Heading>
      <Text mb="2">
        A supplement to the book for {handover.client} of <Moment at={handover.at} dayOnly />.{' '}
        <RouterLink to={here} className={text.link}>
          The handover
        </RouterLink>{' '}
        <RouterLink to={`${home}/history`} className={`${text.link} ${look.screen}`}>
          Who changed what, and when
        </RouterLink>
      </Text>
      {since.length === 0 ? (
        <p>Nothing has changed since: the book holds as it is.</p>
      ) : (
        <p className={look.screen}>
          <a href={`${here}/since.csv`} className={text.link}>
            Download as CSV
          </a>{' '}
          <QuietButton type="button" small onClick={() => window.print()}>
            Print
          </QuietButton>
        </p>
      )}
      {since.map(({ name, lines }) => (
        <section key={name} className={look.section} aria-labelledby={`since-${name.replace(' ', '-')}`}>
          <h2 id={`since-${name.replace(' ', '-')}`}>
            {sinceTitles[name].title}: {lines.length}
          </h2>
          <p className={text.quiet}>{sinceTitles[name].says}</p>
          <RuledTable label={sinceTitles[name].title} columns={['What', 'Change']} cards>
            {lines.slice(0, MOST_LINES).map((line, at) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: one thing may stand here twice
              <tr key={at}>
                <td className={text.anywhere}>
                  {line.page === null ? (
                    line.name
                  ) : (
                    <RouterLink to={`${home}/${line.page}`} className={text.link}>
                      {line.name}
                    </RouterLink>
                  )}
                </td>
                <td className={text.anywhere}>{line.what}</td>
              </tr>
            ))}
          </RuledTable>
          {lines.length > MOST_LINES && (
            <p className={text.quiet}>and {lines.length - MOST_LINES} more; the table has all.</p>
          )}
        </section>
      ))}
      {floors.map(({ id, name, drawing }) => (
        <section key={id} className={look.section} aria-labelledby={`floor-${id}`}>
          <h2 id={`floor-${id}`}>{name}, with what is new</h2>
          <DrawingView drawing={drawing} alt={`${name} with what is new`} siteId={plan.site.id} />
        </section>
      ))}
    </article>
  )
}
