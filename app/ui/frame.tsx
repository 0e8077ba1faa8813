import { Box, ClientOnly, Flex, Link } from '@chakra-ui/react'
import { useTheme } from 'next-themes'
import type { ReactNode } from 'react'
import { Form, Link as RouterLink, useLocation } from 'react-router'
import { useShortcut } from './shortcut'
import { useUnit } from './units'
import { WhoLink } from './who'

const barButton = {
  border: '1px solid',
  borderColor: 'signQuiet',
  color: 'signInk',
  borderRadius: '2px',
  px: '2.5',
  h: '30px',
  fontSize: 'sm',
  fontWeight: '600',
  cursor: 'pointer',
  whiteSpace: 'nowrap',
  _hover: { bg: 'whiteAlpha.200' },
} as const

/** The bar across the top: where one is, and what holds everywhere. */
export function TopBar({ children }: { children?: ReactNode }) {
  return (
    <Flex
      as="header"
      bg="sign"
      color="signInk"
      align="center"
      gap={{ base: '2', md: '3' }}
      px="4"
      minH="52px"
      py="1.5"
      flexWrap="wrap"
    >
      <Link
        asChild
        color="signInk"
        fontWeight="800"
        fontSize="lg"
        letterSpacing="0.02em"
        _hover={{ textDecoration: 'none' }}
      >
        <RouterLink to="/">
          <svg width="20" height="24" viewBox="0 0 20 24" aria-hidden="true">
            <path d="M2 23V1h16v22" fill="none" stroke="currentColor" strokeWidth="2.5" />
            <path d="M2 1l10 5v17l-10 0z" fill="#D9A04A" />
          </svg>
          Hallway
        </RouterLink>
      </Link>
      <Flex flex={{ base: '1 0 100%', md: '1' }} order={{ base: 1, md: 0 }} align="center" gap="3" minW="0">
        {children}
      </Flex>
      <Box flex="1" display={{ md: 'none' }} />
      <WhoLink />
      <UnitSwitch />
      <ClientOnly fallback={<Box w="66px" />}>
        <LightSwitch />
      </ClientOnly>
    </Flex>
  )
}

function UnitSwitch() {
  const unit = useUnit()
  const { pathname, search } = useLocation()
  useShortcut('u', () => document.getElementById('unit-switch')?.click())
  return (
    <Form method="post" action="/unit" preventScrollReset>
      <input type="hidden" name="back" value={`${pathname}${search}`} />
      <Box
        as="button"
        id="unit-switch"
        {...({ type: 'submit', name: 'unit', value: unit === 'm' ? 'ft' : 'm', 'aria-keyshortcuts': 'u' } as object)}
        {...barButton}
        title="Switch between metres and feet (u)"
      >
        {unit === 'm' ? 'metres' : 'feet'}
        <Box as="span" srOnly>
          , switch to {unit === 'm' ? 'feet' : 'metres'}
        </Box>
      </Box>
    </Form>
  )
}

function LightSwitch() {
  const { resolvedTheme, setTheme } = useTheme()
  const dark = resolvedTheme === 'dark'
  return (
    <Box
      as="button"
      {...({ type: 'button' } as object)}
      onClick={() => setTheme(dark ? 'light' : 'dark')}
      {...barButton}
      minW="66px"
    >
      {dark ? 'Dark' : 'Light'}
      <Box as="span" srOnly>
        , switch to {dark ? 'light' : 'dark'}
      </Box>
    </Box>
  )
}
