import { Heading, Text } from '@chakra-ui/react'
import { useMemo } from 'react'
import { Link as RouterLink, useSearchParams } from 'react-router'
import { FOUND, type FoundKind, find, type Hit, wordsOf } from '../../../core/find/find'
import text from '../../theme/text.module.css'
import { RuledTable } from '../../ui/ruled-table'
import { useSite } from '../../ui/site-context'

/** So many of each sort are listed; more words make it fewer. */
const MOST_LISTED = 50

const headings: Record<FoundKind, string> = {
  run: 'Runs',
  cable: 'Cables',
  device: 'Devices',
  place: 'Places',
  need: 'Needs',
  kind: 'Cable kinds',
}
const addressOf: Record<FoundKind, (id: string) => string> = {
  run: (id) => `runs/${id}`,
  cable: (id) => `cables/${id}`,
  device: (id) => `survey/${id}`,
  place: () => 'survey',
  need: (id) => `needs/${id}`,
  kind: (id) => `drawer/catalogue?edit=${id}`,
}

/** Pages and what is done on them, with the words people look for them by. */
const PAGES = [
  { to: '', name: 'Match', words: 'match board runs verdicts' },
  { to: 'runs/new', name: 'New run', words: 'new run lay add' },
  { to: 'verdicts', name: 'Verdicts to print or send', words: 'verdicts print send list csv client buy' },
  { to: 'reach', name: 'Reach chart', words: 'reach chart length rate' },
  { to: 'drawer', name: 'Drawer', words: 'drawer cables leads' },
  { to: 'drawer/add', name: 'Add a cable', words: 'add new cable lead' },
  { to: 'drawer/import', name: 'Import a list of cables', words: 'import table csv list cables spreadsheet paste' },
  { to: 'drawer/chip', name: 'Read a cable’s chip', words: 'chip e-marker read' },
  { to: 'drawer/sessions', name: 'Sort-out sessions', words: 'sort out session test bench soak' },
  { to: 'drawer/catalogue', name: 'Catalogue', words: 'catalogue kinds prices shop' },
  { to: 'drawer/tags', name: 'Print tags', words: 'tags labels print' },
  { to: 'survey', name: 'Survey', words: 'survey devices ports places add' },
  { to: 'walk', name: 'Walk it', words: 'walk phone measure photo' },
  { to: 'floors', name: 'Floors and pathways', words: 'floors drawing pathways tray conduit noise' },
  { to: 'tables', name: 'Survey tables', words: 'tables csv import export spreadsheet' },
  { to: 'needs', name: 'Needs', words: 'needs pictures copy place desk' },
  { to: 'needs/new', name: 'Add needs', words: 'add needs new' },
  { to: 'visitors', name: 'Who sits there', words: 'visitors laptops desk who sits' },
  { to: 'growth', name: 'What if it grows', words: 'growth what-if upgrade later' },
  { to: 'order', name: 'Order: decide what to buy', words: 'order buy decide cheapest spares shop' },
  { to: 'install', name: 'Install: what to lay where', words: 'install lay work list tick bring up pull cable' },
  {
    to: 'prove',
    name: 'Prove: how far each run has come',
    words: 'prove test soak accept stale laid proof instrument',
  },
  {
    to: 'faults',
    name: 'Faults: search what is wrong',
    words: 'faults search symptom wrong broken drops hot slow log cause try',
  },
  {
    to: 'handover',
    name: 'Handover: what the client keeps',
    words: 'handover book pdf client pack archive ready since changed supplement desk card',
  },
  {
    to: 'record',
    name: 'Record: what held, and what we advise',
    words: 'record advice held dropped kinds matrix watts',
  },
  { to: 'test-plan', name: 'Plan of tests', words: 'plan tests order soaks stale again minutes' },
  { to: 'compare', name: 'Before and after', words: 'compare before after repeats difference job' },
  { to: 'orders', name: 'Orders', words: 'orders arrived came tag send back return days calendar' },
  { to: 'suppliers', name: 'Suppliers', words: 'suppliers shops prices offers terms' },
  { to: 'listing', name: 'Read a listing', words: 'listing shop page claims seller questions' },
  { to: 'policy', name: 'Rules of this site', words: 'rules policy book bench slack prices settings' },
  { to: 'history', name: 'History', words: 'history undo changes who' },
] as const

/** Everything of the site that has the words looked for, and the pages that do. */
export default function Find() {
  const { plan, index } = useSite()
  const [params] = useSearchParams()
  const asked = params.get('q')?.slice(0, 200) ?? ''
  const hits = useMemo(() => find(index, asked), [index, asked])
  const words = wordsOf(asked)
  const home = `/sites/${plan.site.id}`
  const pages =
    words.length === 0
      ? PAGES
      : PAGES.filter(({ name, words: own }) => words.every((word) => `${name} ${own}`.toLowerCase().includes(word)))
  return (
    <>
      <Heading as="h1" size="xl" mb="2">
        {asked.trim() === '' ? 'Find' : `Find “${asked.trim()}”`}
      </Heading>
      {hits.length === 0 && pages.length === 0 && (
        <Text>Nothing here has all these words. Try fewer of them, or part of a name.</Text>
      )}
      {pages.length > 0 && (
        <nav aria-label="Pages found">
          <Heading as="h2" size="md" mt="4" mb="1">
            Pages
          </Heading>
          <ul>
            {pages.map(({ to, name }) => (
              <li key={to}>
                <RouterLink to={to === '' ? home : `${home}/${to}`} className={text.link}>
                  {name}
                </RouterLink>
              </li>
            ))}
          </ul>
        </nav>
      )}
      {FOUND.map((kind) => (
        <Hits key={kind} kind={kind} hits={hits.filter((hit) => hit.kind === kind)} home={home} />
      ))}
      {hits.some(({ kind }) => kind === 'run') && (
        <Text mt="3">
          <RouterLink to={`${home}?${new URLSearchParams({ q: asked })}`} className={text.link}>
            Show these runs on the board
          </RouterLink>
        </Text>
      )}
    </>
  )
}

function Hits({ kind, hits, home }: { kind: FoundKind; hits: readonly Hit[]; home: string }) {
  if (hits.length === 0) return null
  return (
    <>
      <Heading as="h2" size="md" mt="4" mb="1">
        {headings[kind]}
      </Heading>
      <RuledTable label={headings[kind]} columns={['Name', 'What it is']} widths={['35%', 'auto']} cards>
        {hits.slice(0, MOST_LISTED).map(({ id, name, about }) => (
          <tr key={id}>
            <td className={text.anywhere}>
              <RouterLink to={`${home}/${addressOf[kind](id)}`} className={text.link}>
                {name}
              </RouterLink>
            </td>
            <td className={text.anywhere}>{about}</td>
          </tr>
        ))}
      </RuledTable>
      {hits.length > MOST_LISTED && (
        <Text fontSize="sm">and {(hits.length - MOST_LISTED).toLocaleString('en')} more: add a word</Text>
      )}
    </>
  )
}
