import { Box, Heading, Link, Text } from '@chakra-ui/react'
import { isRouteErrorResponse, useLocation } from 'react-router'
import { AWAY_WORDS } from '../away-words'
import { DoorGlyph } from './grade'
import { useRequestNumber } from './nonce'
import { useWithinSite } from './site-context'

const words: Record<number, [string, string]> = {
  400: [
    'That cannot be read',
    'What was sent is not what this page sends. Nothing was saved. Go back, open the page once more, and do it again.',
  ],
  401: ['You are signed out', 'Nothing was saved. Sign in, then do it again.'],
  403: ['You may not do that here', 'Nothing was changed. Ask whoever leads the site for more.'],
  410: ['This has ended', 'It was taken back, or its time is over.'],
  413: ['That is more than Hallway takes here', 'Nothing was saved. Send it in parts, or choose another file.'],
  409: ['This Hallway is too old for that', 'Nothing was changed. Update it, or open the site where it was written.'],
  429: ['That is a lot in one minute', 'Nothing was saved. Wait a minute and do it again.'],
  404: ['This page is not there', 'The site or run may have been deleted, or the address has a slip in it.'],
  503: ['Not at this moment', AWAY_WORDS],
}
const anything: [string, string] = [
  'Something in Hallway went wrong',
  'Nothing more was changed. Try again; if it happens again, what led here is in the log of the server.',
]

/** What a route's error boundary shows: what was said with the error, or what its status means. */
export const RouteErrorView = ({ error }: { error: unknown }) => (
  <ErrorView
    status={isRouteErrorResponse(error) ? error.status : 500}
    detail={isRouteErrorResponse(error) ? error.data : undefined}
  />
)

/** An error page: what happened, what was kept, what to do; never what went on inside. */
export function ErrorView({ status, detail }: { status: number; detail?: unknown }) {
  const within = useWithinSite()
  const { pathname, search } = useLocation()
  const [title, text] = words[status] ?? anything
  const number = useRequestNumber()
  return (
    <Box as={within ? 'section' : 'main'} maxW="560px" mx="auto" mt="16" px="5" role="alert">
      <DoorGlyph grade="blocked" size={56} />
      <Heading as="h1" size="2xl" mt="4">
        {title}
      </Heading>
      <Text mt="3">{typeof detail === 'string' && detail ? detail : text}</Text>
      {number && (
        <Text mt="3" fontSize="sm" color="quiet" data-request={number}>
          In the log of the server this is request <code>{number}</code>.
        </Text>
      )}
      <Text mt="5" display="flex" gap="5">
        <Link href={`${pathname}${search}`} color="brassInk" textDecoration="underline">
          Try again
        </Link>
        <Link href="/" color="brassInk" textDecoration="underline">
          All sites
        </Link>
      </Text>
    </Box>
  )
}
