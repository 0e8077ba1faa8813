import { Box, Flex, Text } from '@chakra-ui/react'
import { Form, Link as RouterLink, useLocation, useRouteLoaderData } from 'react-router'
import type { loader as rootLoader } from '../root'
import { QuietButton } from './controls'
import { PlainInput } from './field'
import look from './frame.module.css'

/** The name this browser has given; null where it has given none. */
export const useWho = (): string | null => useRouteLoaderData<typeof rootLoader>('root')?.who ?? null

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

/** Whose name stands beside what is changed, in the bar; asked for where there is none. */
export function WhoLink() {
  const who = useWho()
  const { pathname, search } = useLocation()
  return (
    <RouterLink
      to={`/who?${new URLSearchParams({ back: `${pathname}${search}` })}`}
      className={`${look.quietLink} ${look.who}`}
    >
      {who ?? 'Who are you?'}
    </RouterLink>
  )
}

/** Asks once whose name shall stand beside what is changed from this browser. */
export function AskWho() {
  const who = useWho()
  const { pathname, search } = useLocation()
  if (who !== null) return null
  return (
    <Form method="post" action="/who">
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
        <Text fontSize="sm">Whose name shall stand beside what you change here?</Text>
        <input type="hidden" name="back" value={`${pathname}${search}`} />
        <PlainInput
          style={{ width: 200 }}
          name="name"
          aria-label="Your name"
          required
          maxLength={120}
          autoComplete="name"
        />
        <QuietButton>That is me</QuietButton>
      </Flex>
    </Form>
  )
}
