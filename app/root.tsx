import '@fontsource-variable/overpass/wght.css'
import '@fontsource-variable/overpass-mono/wght.css'
import './theme/media.css'
import { ChakraProvider } from '@chakra-ui/react'
import overpass from '@fontsource-variable/overpass/files/overpass-latin-wght-normal.woff2?url'
import { ThemeProvider } from 'next-themes'
import { type ReactNode, useEffect } from 'react'
import { Links, Meta, Outlet, Scripts, ScrollRestoration, type ShouldRevalidateFunctionArgs } from 'react-router'
import { nameOf } from '../server/people/asker'
import type { Route } from './+types/root'
import { asker, knowWhoAsks } from './asker.server'
import { notBehind } from './cluster.server'
import { answeredInTime } from './in-time.server'
import { restoreDraft } from './outbox/drafts'
import { LeavingQuestion } from './outbox/leaving-question'
import { OutboxBar } from './outbox/outbox-bar'
import { readerOf } from './reader.server'
import { save } from './stored.server'
import { system } from './theme/system'
import { pressEarlyKeys } from './ui/early-keys'
import { RouteErrorView } from './ui/error-view'
import { useNonce } from './ui/nonce'
import { UnitProvider } from './ui/units'
import { readUnit } from './unit-cookie'
import { readWho } from './who.server'

export const links: Route.LinksFunction = () => [
  { rel: 'preload', href: overpass, as: 'font', type: 'font/woff2', crossOrigin: 'anonymous' },
  { rel: 'icon', href: '/door.svg', type: 'image/svg+xml' },
]

export const meta: Route.MetaFunction = () => [{ title: 'Hallway' }]

export const middleware: Route.MiddlewareFunction[] = [answeredInTime, notBehind, knowWhoAsks]

export async function loader({ request }: Route.LoaderArgs) {
  const who = asker()
  const reader = who.person && readerOf(request, who.person)
  return {
    unit: readUnit(request),
    who: reader ? reader.name : who.open ? await save(() => readWho(request)) : nameOf(who),
    account: reader && { id: reader.id, admin: who.person?.admin ?? false },
    accounts: !who.open,
  }
}

/** The unit and the name change where a form is sent; going from page to page, or narrowing one, asks the server nothing of it. */
export const shouldRevalidate = ({ formMethod, defaultShouldRevalidate }: ShouldRevalidateFunctionArgs): boolean =>
  defaultShouldRevalidate && formMethod !== undefined && formMethod !== 'GET'

export function Layout({ children }: { children: ReactNode }) {
  const nonce = useNonce()
  // tells tests and benches that scripts have taken over
  useEffect(() => {
    document.documentElement.dataset.ready = 'true'
    performance.mark('hallway-ready')
    restoreDraft()
    pressEarlyKeys()
  }, [])
  return (
    <html lang="en" suppressHydrationWarning>
      <head>
        <meta charSet="utf-8" />
        <meta name="viewport" content="width=device-width, initial-scale=1" />
        <Meta />
        <Links />
      </head>
      <body>
        <ChakraProvider value={system}>
          <ThemeProvider attribute="class" disableTransitionOnChange nonce={nonce}>
            {children}
          </ThemeProvider>
        </ChakraProvider>
        <ScrollRestoration nonce={nonce} />
        <Scripts nonce={nonce} />
      </body>
    </html>
  )
}

export default function Root({ loaderData }: Route.ComponentProps) {
  const account = loaderData.account?.id ?? ''
  useEffect(() => {
    document.documentElement.dataset.account = account
  }, [account])
  return (
    <UnitProvider value={loaderData.unit}>
      <Outlet />
      <OutboxBar />
      <LeavingQuestion />
    </UnitProvider>
  )
}

export function ErrorBoundary({ error }: Route.ErrorBoundaryProps) {
  return <RouteErrorView error={error} />
}
