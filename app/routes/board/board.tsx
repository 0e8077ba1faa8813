import { Flex, Heading, Link, Text } from '@chakra-ui/react'
import { type KeyboardEvent, memo, useCallback, useMemo, useState } from 'react'
import { Link as RouterLink, useLocation, useSearchParams } from 'react-router'
import { byId } from '../../../core/plan/lookup'
import { MainButton, Notice, QuietButton } from '../../ui/controls'
import { InlineSelect } from '../../ui/field'
import { LongTable } from '../../ui/long-table'
import { useSite } from '../../ui/site-context'
import { Took } from '../../ui/take'
import { Undo } from '../../ui/undo'
import { DueNotice } from '../order/due-notice'
import look from './board.module.css'
import { COLUMNS, GroupLine, RunLine, WIDTHS } from './board-row'
import { type BoardRow, boardRows, lookOf } from './board-rows'
import { BoardFilters } from './filters'
import { FirstPath } from './first-path'
import { BestLeads, OneKind, WaysOfAll } from './proposal'
import { SiteNote } from './site-note'

const keyOf = (row: BoardRow): string => (row.kind === 'run' ? row.run.id : row.id)

/** What is being worked out for many runs. */
type Working = { what: 'leads' | 'ways' | 'kind'; runs: readonly string[]; kind?: string }

/** Match: every run a row, with its doors in miniature, the need against its door, and a sentence where something is wrong. */
export default function Board() {
  const site = useSite()
  const { plan, assessment, place } = site
  const [params] = useSearchParams()
  const removed = params.get('removed')
  const restored = params.get('restored')
  const tag = params.get('tag') ?? 'The run'
  const { key } = useLocation()
  // what somebody asks for is shown at once; its address follows, and is what counts from then on
  const [ahead, setAhead] = useState({ key: '', search: '' })
  const show = useCallback((search: string) => setAhead({ key, search }), [key])
  const asked = ahead.key === key ? ahead.search : params.toString()
  const view = useMemo(() => lookOf(new URLSearchParams(asked)), [asked])
  const rows = useMemo(() => boardRows(site, view), [site, view])
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set())
  const [working, setWorking] = useState<(Working & { place: number }) | null>(null)
  const choose = useCallback(
    (run: string, on: boolean) =>
      setChosen((before) => {
        const now = new Set(before)
        if (on) now.add(run)
        else now.delete(run)
        return now
      }),
    [],
  )
  const shown = useMemo(() => rows.flatMap((row) => (row.kind === 'run' ? row : [])), [rows])
  const marked = shown.filter(({ run }) => chosen.has(run.id))
  const meant = marked.length > 0 ? marked : shown
  const unclear = new Set(meant.filter(({ verdict }) => verdict.grade !== 'clear').map(({ run }) => run.id))
  // however the board is ordered, what is proposed for them is the same
  const waiting = plan.runs.flatMap(({ id }) => (unclear.has(id) ? id : []))
  const start = (what: 'leads' | 'ways') => setWorking({ what, runs: waiting, place })
  // whoever chose runs means these, clear or not
  const chooseKind = (kind: string) =>
    setWorking(
      kind ? { what: 'kind', kind, runs: marked.length > 0 ? marked.map(({ run }) => run.id) : waiting, place } : null,
    )
  // what was worked out is of the site as it was
  const current = working?.place === place ? working : null
  const oneKind = current?.kind ? byId(plan.kinds).get(current.kind) : undefined
  return (
    <>
      <Head />
      <SiteNote />
      <DueNotice />
      {(plan.runs.length === 0 || plan.needs.length === 0) && <FirstPath />}
      {assessment.runs.length > 0 && <BoardFilters look={view} search={asked} show={show} />}
      <Took />
      {restored && (
        <Notice tone="clear" slim>
          {restored} is back.
        </Notice>
      )}
      {removed && (
        <Notice tone="note">
          <Undo change={removed} back={`/sites/${plan.site.id}?${new URLSearchParams({ restored: tag })}`}>
            {tag} was deleted, with the needs that only it served.
          </Undo>
        </Notice>
      )}
      {waiting.length + marked.length > 0 && (
        <fieldset className={look.bulk} aria-label="For many runs" data-paper="no">
          <span aria-live="polite">
            {marked.length > 0 ? `${marked.length} chosen, ` : ''}
            {waiting.length} not clear
          </span>
          {waiting.length > 0 && (
            <>
              <QuietButton type="button" onClick={() => start('leads')}>
                Best from the drawer for {waiting.length === 1 ? 'it' : 'them'}
              </QuietButton>
              <QuietButton type="button" onClick={() => start('ways')}>
                A way out for each
              </QuietButton>
            </>
          )}
          {plan.kinds.length > 0 && (
            // biome-ignore lint/a11y/noLabelWithoutControl: the choice within is a control
            <label className={look.kind}>
              One kind for {(marked.length || waiting.length) === 1 ? 'it' : 'them'}:
              <InlineSelect
                value={current?.kind ?? ''}
                onChange={({ currentTarget }) => chooseKind(currentTarget.value)}
              >
                <option value="">choose</option>
                {plan.kinds.map(({ id, name }) => (
                  <option key={id} value={id}>
                    {name}
                  </option>
                ))}
              </InlineSelect>
            </label>
          )}
          {marked.length > 0 && (
            <QuietButton asChild>
              <RouterLink to={manyAddress(plan.site.id, marked)}>Change or delete them</RouterLink>
            </QuietButton>
          )}
          {marked.length > 0 && (
            <QuietButton type="button" onClick={() => setChosen(new Set())}>
              Choose none
            </QuietButton>
          )}
        </fieldset>
      )}
      {current && oneKind && <OneKind runs={current.runs} kind={oneKind} close={() => setWorking(null)} />}
      {current?.what === 'leads' && <BestLeads runs={current.runs} close={() => setWorking(null)} />}
      {current?.what === 'ways' && <WaysOfAll runs={current.runs} close={() => setWorking(null)} />}
      {rows.length === 0 ? (
        plan.runs.length > 0 && <NoMatch />
      ) : (
        // biome-ignore lint/a11y/noStaticElementInteractions: arrow keys go from run to run; each link is reached without them
        <div onKeyDown={stepBetweenRuns}>
          <LongTable label="Runs" columns={COLUMNS} widths={WIDTHS} rows={rows} keyOf={keyOf}>
            {(row, props) =>
              row.kind === 'group' ? (
                <GroupLine key={row.id} row={row} props={props} />
              ) : (
                <RunLine key={row.run.id} row={row} props={props} chosen={chosen.has(row.run.id)} choose={choose} />
              )
            }
          </LongTable>
        </div>
      )}
    </>
  )
}

/** Where what was chosen is changed at once, as far as an address goes. */
const manyAddress = (site: string, rows: readonly { run: { id: string } }[]): string =>
  `/sites/${site}/many?${new URLSearchParams([
    ['list', 'runs'],
    ...rows.slice(0, MOST_IN_ADDRESS).map(({ run }) => ['id', run.id]),
  ])}`
const MOST_IN_ADDRESS = 200

/** The head of the page and where else it leads; whatever is narrowed below, it stays. */
const Head = memo(() => {
  const { plan } = useSite()
  return (
    <Flex align="center" justify="space-between" gap="4" mb="3" wrap="wrap">
      <Heading as="h1" size="xl">
        Runs
      </Heading>
      <Flex gap="3" wrap="wrap" align="center" data-paper="no">
        {plan.runs.length > 0 && (
          <Link asChild color="brassInk" textDecoration="underline" fontSize="sm">
            <RouterLink to={`/sites/${plan.site.id}/reach`}>Reach chart</RouterLink>
          </Link>
        )}
        {plan.runs.length > 0 && (
          <Link asChild color="brassInk" textDecoration="underline" fontSize="sm">
            <RouterLink to={`/sites/${plan.site.id}/many?list=runs`}>Many at once</RouterLink>
          </Link>
        )}
        {plan.runs.length > 0 && (
          <Link asChild color="brassInk" textDecoration="underline" fontSize="sm">
            <RouterLink to={`/sites/${plan.site.id}/verdicts`}>Print or send</RouterLink>
          </Link>
        )}
        <Link href={`/sites/${plan.site.id}/plan.json`} color="brassInk" textDecoration="underline" fontSize="sm">
          Plan file
        </Link>
        <Link href={`/sites/${plan.site.id}/plan.zip`} color="brassInk" textDecoration="underline" fontSize="sm">
          Archive
        </Link>
        {plan.devices.length > 1 && (
          <MainButton asChild>
            <RouterLink to={`/sites/${plan.site.id}/runs/new`}>New run</RouterLink>
          </MainButton>
        )}
      </Flex>
    </Flex>
  )
})

/** Up and down go from run to run, x chooses the one that has the focus. */
function stepBetweenRuns(event: KeyboardEvent<HTMLDivElement>): void {
  const link = (event.target as HTMLElement).closest('[data-run-link]')
  if (!(link instanceof HTMLElement)) return
  if (event.key === 'x') {
    link.closest('tr')?.querySelector<HTMLInputElement>('input[type=checkbox]')?.click()
    return
  }
  if (event.key !== 'ArrowDown' && event.key !== 'ArrowUp') return
  const links = [...event.currentTarget.querySelectorAll<HTMLElement>('[data-run-link]')]
  const next = links[links.indexOf(link) + (event.key === 'ArrowDown' ? 1 : -1)]
  if (!next) return
  event.preventDefault()
  next.focus()
}

function NoMatch() {
  const { plan } = useSite()
  return (
    <Text>
      No run matches.{' '}
      <Link asChild color="brassInk" textDecoration="underline">
        <RouterLink to={`/sites/${plan.site.id}`}>Show all of them</RouterLink>
      </Link>
    </Text>
  )
}
