import { Box, Flex, Text } from '@chakra-ui/react'
import { useEffect, useState } from 'react'
import { Link as RouterLink, useLocation, useNavigation, useRouteLoaderData } from 'react-router'
import type { loader as rootLoader } from '../root'
import { QuietButton } from './controls'
import { PlainInput } from './field'
import { Form } from './form'
import look from './frame.module.css'

/** The name this browser has given; null where it has given none. */
export const useWho = (): string | null => useRouteLoaderData<typeof rootLoader>('root')?.who ?? null

/** Whether people sign in here. */
export const useAccounts = (): boolean => useRouteLoaderData<typeof rootLoader>('root')?.accounts ?? false

export function WhoField({ name }: { name: string | null }) {
  return (
    <Box as="label" display="block" maxW="320px">
      <Box as="span" fontWeight="600">
        Your name
      </Box>
      <PlainInput name="name" defaultValue={name ?? ''} required maxLength={120} autoComplete="name" />
    </Box>
  )
}

/** Whether anything of the site was saved, or was on its way, since the site was opened here. */
function useHasSaved(): boolean {
  const { state, formMethod, formAction } = useNavigation()
  const [saved, setSaved] = useState(false)
  const saves = state !== 'idle' && formMethod === 'POST' && formAction?.startsWith('/sites/') === true
  useEffect(() => {
    if (saves) setSaved(true)
  }, [saves])
  return saved
}

/** Whose name stands beside what is changed, in the bar; asked for where there is none. */
export function WhoLink() {
  const who = useWho()
  const { pathname, search } = useLocation()
  if (useAccounts())
    return (
      <RouterLink to={who === null ? '/sign-in' : '/account'} className={`${look.quietLink} ${look.who}`}>
        {who ?? 'Sign in'}
      </RouterLink>
    )
  return (
    <RouterLink
      to={`/who?${new URLSearchParams({ back: `${pathname}${search}` })}`}
      className={`${look.quietLink} ${look.who}`}
    >
      {who ?? 'Your name'}
    </RouterLink>
  )
}

/** Asks for a name with the first save from this browser, and not before. */
export function AskWho() {
  const who = useWho()
  const { pathname, search } = useLocation()
  const saves = useHasSaved()
  const accounts = useAccounts()
  if (who !== null || accounts || !saves) return null
  return (
    <Form method="post" action="/who" className={look.ask}>
      <Flex
        align="center"
        gap="3"
        wrap="wrap"
        px={{ base: '4', md: '6' }}
        py="2"
        bg="floor"
        borderBottom="1px solid"
        borderColor="line"
      >
        <Text fontSize="sm">Your name, for the history. Until you give one it says “somebody”.</Text>
        <input type="hidden" name="back" value={`${pathname}${search}`} />
        <PlainInput
          style={{ width: 200 }}
          name="name"
          aria-label="Your name"
          required
          maxLength={120}
          autoComplete="name"
        />
        <QuietButton>Save my name</QuietButton>
      </Flex>
    </Form>
  )
}
