import { Flex, Heading } from '@chakra-ui/react'
import { NavLink, Outlet } from 'react-router'
import { RouteErrorView } from '../../ui/error-view'
import { useSite } from '../../ui/site-context'
import type { Route } from './+types/drawer'

/** The stage of the drawer: its pages side by side under one heading. */
export default function Drawer() {
  const { plan } = useSite()
  const home = `/sites/${plan.site.id}/drawer`
  const pages = [
    ['Cables', home],
    ['Add one', `${home}/add`],
    ['From a table', `${home}/import`],
    ['Ask its chip', `${home}/chip`],
    ['Sort out', `${home}/sessions`],
    ['Catalogue', `${home}/catalogue`],
  ] as const
  return (
    <>
      <Flex align="baseline" gap={{ base: '3', md: '6' }} mb="4" wrap="wrap">
        <Heading as="h1" size="xl">
          Drawer
        </Heading>
        <Flex as="nav" aria-label="Drawer" gap={{ base: '3', md: '5' }} wrap="wrap" fontSize="sm">
          {pages.map(([name, to]) => (
            <NavLink key={to} to={to} end={to === home}>
              {({ isActive }) => (
                <Flex
                  py="1"
                  color={isActive ? 'ink' : 'quiet'}
                  fontWeight={isActive ? '800' : '500'}
                  borderBottom="3px solid"
                  borderColor={isActive ? 'brass' : 'transparent'}
                  _hover={{ color: 'ink' }}
                >
                  {name}
                </Flex>
              )}
            </NavLink>
          ))}
        </Flex>
      </Flex>
      <Outlet />
    </>
  )
}

export function ErrorBoundary({ error }: Route.ErrorBoundaryProps) {
  return <RouteErrorView error={error} />
}
