import { Box, Flex, Input, Link } from '@chakra-ui/react'
import { useMemo, useRef } from 'react'
import {
  Form,
  isRouteErrorResponse,
  Outlet,
  Link as RouterLink,
  type ShouldRevalidateFunctionArgs,
  useSearchParams,
} from 'react-router'
import { openQuestion } from '../../core/drawer/drawer-rows'
import { loadPlan } from '../stored.server'
import { ErrorView } from '../ui/error-view'
import { TopBar } from '../ui/frame'
import { useShortcut } from '../ui/shortcut'
import { SiteProvider, useSite } from '../ui/site-context'
import { StageSign } from '../ui/stage-sign'
import type { Route } from './+types/site'

/**
 * A site travels as the text of its plan file: one string for the browser's own parser, where thousands of cables sent value by value
 * would take both ends many times as long.
 */
export async function loader({ params }: Route.LoaderArgs) {
  const { plan, revision } = await loadPlan(params.site)
  return { name: plan.site.name, text: JSON.stringify(plan), revision }
}

/** The plan is read anew after every save; a filter or a sort in the address changes nothing of it. */
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
export default function Site({ loaderData }: Route.ComponentProps) {
  return (
    <SiteProvider text={loaderData.text} revision={loaderData.revision}>
      <SiteBar />
      <Flex direction={{ base: 'column', md: 'row' }}>
        <SiteSign />
        <Box as="main" flex="1" minW="0" px={{ base: '4', md: '6' }} pt="5" pb={{ base: '24', md: '10' }}>
          <Outlet />
        </Box>
      </Flex>
    </SiteProvider>
  )
}

function SiteBar() {
  const { plan } = useSite()
  const [params] = useSearchParams()
  const search = useRef<HTMLInputElement>(null)
  useShortcut('/', () => search.current?.focus())
  const home = `/sites/${plan.site.id}`
  return (
    <TopBar>
      <Link asChild color="signInk" fontWeight="600" truncate minW="0" flex={{ base: '1', md: 'none' }}>
        <RouterLink to={home}>{plan.site.name}</RouterLink>
      </Link>
      <Form action={home} role="search">
        <Input
          ref={search}
          key={params.get('q')}
          name="q"
          defaultValue={params.get('q') ?? ''}
          placeholder="Find a run, device or cable  ( / )"
          aria-label="Find a run, device or cable"
          aria-keyshortcuts="/"
          size="xs"
          h="30px"
          w={{ base: '130px', md: '250px' }}
          bg="whiteAlpha.100"
          borderColor="signQuiet"
          color="signInk"
          borderRadius="2px"
          _placeholder={{ color: 'signQuiet' }}
        />
      </Form>
      <Link asChild color="signQuiet" fontSize="sm" textDecoration="underline" whiteSpace="nowrap">
        <RouterLink to={`${home}/policy`}>{plan.policy.length === 'book' ? 'by the book' : 'by the bench'}</RouterLink>
      </Link>
    </TopBar>
  )
}

function SiteSign() {
  const { plan, index, assessment } = useSite()
  const home = `/sites/${plan.site.id}`
  const unsettled = useMemo(
    () => plan.cables.filter((cable) => openQuestion(index, cable) !== null).length,
    [plan, index],
  )
  const open = (list: readonly { grade: string }[]) => list.filter(({ grade }) => grade !== 'clear').length
  return (
    <StageSign
      stages={[
        {
          to: `${home}/drawer`,
          under: [`${home}/drawer`, `${home}/cables`],
          name: 'Drawer',
          waiting: unsettled,
          hint: 'Cables of which nothing is known, or whose evidence disagrees',
        },
        { to: `${home}/needs`, name: 'Needs', waiting: open(assessment.needs), hint: 'Needs that are not clear' },
        {
          to: home,
          under: [`${home}/runs`],
          name: 'Match',
          waiting: open(assessment.runs),
          hint: 'Runs that are not clear',
        },
      ]}
    />
  )
}

export function ErrorBoundary({ error }: Route.ErrorBoundaryProps) {
  return (
    <>
      <TopBar />
      <ErrorView status={isRouteErrorResponse(error) ? error.status : 500} />
    </>
  )
}
