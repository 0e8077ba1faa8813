import { Heading } from '@chakra-ui/react'
import { Link as RouterLink } from 'react-router'
import { sections } from '../../../core/handover/sections'
import { SECTIONS } from '../../../core/vocabulary/handover'
import { leafOfBook } from '../../off-thread.server'
import text from '../../theme/text.module.css'
import { QuietButton } from '../../ui/controls'
import { useSite } from '../../ui/site-context'
import type { Route } from './+types/book'
import { BlockView } from './block-view'
import { answered, handoverIn } from './handed.server'
import look from './handover.module.css'
import { OtherRules } from './other-rules'

/** The book of a handover: all of it where it is small, else a part at a time. */
export async function loader({ request, params }: Route.LoaderArgs) {
  const { id, judged, sections: chosen } = await handoverIn(params.site, params.handover)
  const { searchParams } = new URL(request.url)
  const part = SECTIONS.find((name) => name === searchParams.get('part') && chosen.includes(name)) ?? null
  const from = Math.min(1e6, Math.max(0, Number.parseInt(searchParams.get('from') ?? '0', 10) || 0))
  const leaf = answered(await leafOfBook({ siteId: params.site, handover: id, part, from }))
  return { leaf, part, from, judged: judged ?? null }
}

/** The same book as on paper, to be read here; it prints well by itself. */
export default function BookPage({ loaderData, params }: Route.ComponentProps) {
  const { leaf, part, from, judged } = loaderData
  const { plan } = useSite()
  const { title } = leaf
  const here = `/sites/${plan.site.id}/handover/${params.handover}`
  const query = (next: number) => `?${new URLSearchParams({ ...(part ? { part } : {}), from: String(next) })}`
  return (
    <article className={look.book}>
      <Heading as="h1" size="xl" mb="1">
        {title.title}
      </Heading>
      <p>
        For {title.client}.{' '}
        <RouterLink to={here} className={`${text.link} ${look.screen}`}>
          Its files
        </RouterLink>
      </p>
      <OtherRules judged={judged} />
      {from === 0 && title.about.map((line) => <p key={line}>{line}</p>)}
      <nav aria-label="Parts of the book" className={`${look.contents} ${look.screen}`}>
        <RouterLink to={`${here}/book`} aria-current={part === null ? 'page' : undefined} className={text.link}>
          All of it
        </RouterLink>
        {leaf.sections.map((name) => (
          <RouterLink
            key={name}
            to={`${here}/book?part=${name}`}
            aria-current={part === name ? 'page' : undefined}
            className={text.link}
          >
            {sections[name].title}
          </RouterLink>
        ))}
        <QuietButton type="button" small onClick={() => window.print()}>
          Print
        </QuietButton>
      </nav>
      {leaf.blocks.map((block, at) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: a block of a book is its turn
        <BlockView key={at} block={block} siteId={plan.site.id} />
      ))}
      {leaf.next !== null && (
        <p className={look.screen}>
          <RouterLink to={query(leaf.next)} className={text.link}>
            The next pages
          </RouterLink>
        </p>
      )}
    </article>
  )
}
