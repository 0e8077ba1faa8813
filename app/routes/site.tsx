import { useEffect, useMemo, useRef, useState } from 'react'
import {
  data,
  Outlet,
  Link as RouterLink,
  redirectDocument,
  type ShouldRevalidateFunctionArgs,
  useSearchParams,
} from 'react-router'
import { runSoaksOf } from '../../core/prove/run-soak'
import { standingOf } from '../../core/report/standing'
import { isRunSoak, type Soak } from '../../core/vocabulary/session'
import { access } from '../asker.server'
import { mayOpenAnew, openAnew } from '../open-anew'
import { copyAddress, followSite, OtherShape, openCopy } from '../open-copy'
import type { NewsLine } from '../site-copy'
import { load, loadSite } from '../stored.server'
import { RouteErrorView } from '../ui/error-view'
import { Form } from '../ui/form'
import { TopBar } from '../ui/frame'
import look from '../ui/frame.module.css'
import { MayProvider, useMay } from '../ui/may'
import { News } from '../ui/news'
import { PageStreamContext } from '../ui/page-stream'
import { useShortcut } from '../ui/shortcut'
import { SiteProvider, useSite } from '../ui/site-context'
import { StageSign } from '../ui/stage-sign'
import { LastSaved, UndoingProvider } from '../ui/undoing'
import { useLive } from '../ui/use-live'
import { useStandStill } from '../ui/use-stand-still'
import { AskWho, useAccounts } from '../ui/who'
import { openView } from '../views.server'
import type { Route } from './+types/site'

/** Which copy of the site the page shows, and what is rendered of it here. The copy itself is sent beside the page, not in it. */
export async function loader({ params }: Route.LoaderArgs) {
  const { copy, identity } = await loadSite(params.site)
  await openView(params.site, copy, identity)
  const may = (await load((knex) => access(knex, params.site)))?.held ?? 'look'
  const shown = { name: copy.plan.site.name, identity, place: copy.place, may, news: [] as NewsLine[] }
  // fetched while the page is still being read
  const Link = `<${copyAddress(params.site, shown)}>; rel=preload; as=fetch; crossorigin`
  return data(shown, { headers: { Link } })
}

export const headers: Route.HeadersFunction = ({ loaderHeaders }) => loaderHeaders

/** A browser that holds a copy asks for what came after it, and takes the plan anew only where that cannot be told. */
export async function clientLoader({ request, params, serverLoader }: Route.ClientLoaderArgs) {
  const followed = await followSite(params.site)
  if (followed) {
    const { view, lines } = followed
    const { may } = followed
    return { name: view.copy.plan.site.name, identity: view.identity, place: view.copy.place, may, news: lines }
  }
  const shown = await serverLoader()
  try {
    const { copy } = await openCopy(params.site, shown)
    return { ...shown, place: copy.place }
  } catch (error) {
    if (!(error instanceof OtherShape)) throw error
    if (!mayOpenAnew()) throw data(UPDATED_WORDS, { status: 503 })
    if (new URL(request.url).pathname === location.pathname) return openAnew()
    throw redirectDocument(request.url)
  }
}
const UPDATED_WORDS = 'Hallway is being updated. Nothing was lost. Open this page again in a minute.'

/** The site catches up after every save; a filter or a sort in the address changes nothing of it. */
export const shouldRevalidate = ({
  currentUrl,
  nextUrl,
  formMethod,
  defaultShouldRevalidate,
}: ShouldRevalidateFunctionArgs): boolean =>
  defaultShouldRevalidate &&
  (formMethod !== undefined || currentUrl.pathname !== nextUrl.pathname || currentUrl.search === nextUrl.search)

export const meta: Route.MetaFunction = ({ loaderData }) => [
  { title: loaderData ? `${loaderData.name} · Hallway` : 'Hallway' },
]

/** A site: its bar, its sign, and whichever page is open. */
export default function Site({ loaderData, params }: Route.ComponentProps) {
  const stream = useLive(params.site, loaderData.place)
  const page = useRef<HTMLElement>(null)
  const still = useStandStill(page)
  return (
    <SiteProvider siteId={params.site} shown={loaderData} news={loaderData.news}>
      <MayProvider value={loaderData.may}>
        <PageStreamContext.Provider value={stream}>
          <UndoingProvider>
            <SiteBar />
            <AskWho />
            <OnlyLooks />
            <div className={look.page}>
              <SiteSign />
              <main
                ref={page}
                id="content"
                data-copy-site={params.site}
                data-copy-identity={loaderData.identity}
                data-copy-place={loaderData.place}
                tabIndex={-1}
                inert={still}
                aria-busy={still}
                className={look.main}
              >
                <Outlet />
                <LastSaved />
              </main>
            </div>
            <News />
          </UndoingProvider>
        </PageStreamContext.Provider>
      </MayProvider>
    </SiteProvider>
  )
}

/** Said once at the top, so that nobody wonders why nothing can be pressed. */
function OnlyLooks() {
  if (useMay('work')) return null
  return (
    <p role="note" className={look.open}>
      You may look at this site, not change it.
    </p>
  )
}

function SiteBar() {
  const { plan } = useSite()
  const [params] = useSearchParams()
  const search = useRef<HTMLInputElement>(null)
  const accounts = useAccounts()
  const lead = useMay('lead')
  useShortcut('/', () => search.current?.focus())
  const home = `/sites/${plan.site.id}`
  return (
    <TopBar>
      <RouterLink to={home} className={look.site}>
        {plan.site.name}
      </RouterLink>
      <Form action={`${home}/find`} role="search">
        <input
          ref={search}
          key={params.get('q')}
          name="q"
          defaultValue={params.get('q') ?? ''}
          placeholder="Find anything  ( / )"
          aria-label="Find anything of this site"
          aria-keyshortcuts="/"
          maxLength={200}
          className={look.search}
        />
      </Form>
      <RouterLink to={`${home}/policy`} className={look.quietLink}>
        {plan.policy.length === 'book' ? 'by the book' : 'by the bench'}
      </RouterLink>
      <RouterLink to={`${home}/history`} className={look.quietLink}>
        History
      </RouterLink>
      {accounts && lead && (
        <RouterLink to={`${home}/people`} className={look.quietLink}>
          People
        </RouterLink>
      )}
    </TopBar>
  )
}

function SiteSign() {
  const { plan, assessed } = useSite()
  const home = `/sites/${plan.site.id}`
  const { waiting } = useMemo(() => standingOf(assessed), [assessed])
  const soaks = useSoakNote(plan.soaks)
  return (
    <StageSign
      stages={[
        {
          to: `${home}/drawer`,
          under: [`${home}/drawer`, `${home}/cables`],
          name: 'Drawer',
          waiting: waiting.drawer,
          hint: 'Cables of which nothing is known, or whose evidence disagrees',
        },
        {
          to: `${home}/survey`,
          under: [`${home}/survey`, `${home}/floors`, `${home}/walk`],
          name: 'Survey',
          waiting: waiting.survey,
          hint: 'Devices without ports or a place',
        },
        {
          to: `${home}/needs`,
          under: [`${home}/needs`, `${home}/visitors`, `${home}/growth`],
          name: 'Needs',
          waiting: waiting.needs,
          hint: 'Needs that are not clear',
        },
        {
          to: home,
          under: [`${home}/runs`, `${home}/docks`, `${home}/reach`],
          name: 'Match',
          waiting: waiting.match,
          hint: 'Runs that are not clear',
        },
        {
          to: `${home}/order`,
          under: [`${home}/order`, `${home}/orders`, `${home}/suppliers`, `${home}/listing`],
          name: 'Order',
          waiting: waiting.order,
          hint: 'Order lines that wait for something: to be sent off, tagged, proved or sent back',
        },
        {
          to: `${home}/install`,
          name: 'Install',
          waiting: waiting.install,
          hint: 'Runs that you can lay now: all their leads are here',
        },
        {
          to: `${home}/prove`,
          under: [`${home}/prove`, `${home}/record`, `${home}/compare`],
          name: 'Prove',
          waiting: waiting.prove,
          note: soaks,
          hint: 'Runs that are laid and wait to be tested, tested again or accepted',
        },
        {
          to: `${home}/faults`,
          under: [`${home}/faults`],
          name: 'Faults',
          waiting: waiting.faults,
          hint: 'Faults that are searched now',
        },
        {
          to: `${home}/handover`,
          under: [`${home}/handover`],
          name: 'Handover',
          waiting: waiting.handover,
          hint: 'Runs that are accepted and were not handed over yet',
        },
      ]}
    />
  )
}

/** So often it is looked whether a soak has lasted long enough. */
const LOOK_EVERY_MS = 15_000

/** What soaks of runs are doing, in a few words: those that dropped or are long enough first. The clock is the reader's, so it counts once scripts have loaded. */
function useSoakNote(soaks: readonly Soak[]): string | null {
  const [now, setNow] = useState<Date | null>(null)
  const running = soaks.some(isRunSoak)
  useEffect(() => {
    if (!running) return
    const look = () => setNow(new Date())
    look()
    const timer = setInterval(look, LOOK_EVERY_MS)
    return () => clearInterval(timer)
  }, [running])
  if (!running || now === null) return null
  const standings = runSoaksOf(soaks, now)
  const dropped = standings.filter(({ soak }) => soak.drops).length
  const over = standings.filter((each) => each.over).length
  if (dropped > 0) return `${dropped} dropped`
  return over > 0 ? `${over} long enough` : `${standings.length} soaking`
}

export function ErrorBoundary({ error }: Route.ErrorBoundaryProps) {
  return (
    <>
      <TopBar />
      <RouteErrorView error={error} />
    </>
  )
}
