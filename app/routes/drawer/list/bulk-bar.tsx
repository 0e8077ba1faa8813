import { Flex, Text } from '@chakra-ui/react'
import { Link as RouterLink } from 'react-router'
import { MOST_TAGGED } from '../../../../core/tags/label'
import { MadeFrom } from '../../../ui/change-fields'
import { QuietButton } from '../../../ui/controls'
import { PlainInput } from '../../../ui/field'
import { Form } from '../../../ui/form'
import { useSite } from '../../../ui/site-context'

/** What can be done with the cables chosen in the list; each of it can be undone. */
export function BulkBar({ ids, busy, clear }: { ids: readonly string[]; busy: boolean; clear: () => void }) {
  const { plan } = useSite()
  if (ids.length === 0) return null
  const home = `/sites/${plan.site.id}/drawer`
  const few = ids.length <= MOST_TAGGED
  const list = new URLSearchParams({ cables: ids.join(' ') })
  return (
    <Form method="post" preventScrollReset>
      <MadeFrom />
      <input type="hidden" name="cables" value={ids.join(' ')} />
      <Flex
        role="group"
        aria-label="With the chosen cables"
        gap="2"
        mb="3"
        p="2"
        wrap="wrap"
        align="center"
        bg="floor"
        borderRadius="2px"
      >
        <Text fontWeight="700" px="1" aria-live="polite">
          {ids.length} chosen
        </Text>
        <QuietButton name="intent" value="retired" disabled={busy}>
          Retire
        </QuietButton>
        <QuietButton name="intent" value="lent" disabled={busy}>
          Lend
        </QuietButton>
        <QuietButton name="intent" value="drawer" disabled={busy}>
          Back in the drawer
        </QuietButton>
        <Flex gap="1" align="center">
          <PlainInput
            mono
            style={{ width: 104 }}
            name="first"
            placeholder="C-0100"
            aria-label="First new tag"
            maxLength={24}
          />
          <QuietButton name="intent" value="tag" disabled={busy}>
            New tags from here
          </QuietButton>
        </Flex>
        {few ? (
          <>
            <QuietButton asChild>
              <RouterLink to={`${home}/tags?${list}`}>Print tags</RouterLink>
            </QuietButton>
            <QuietButton asChild>
              <RouterLink to={`${home}/sessions/new?${list}`}>Sort out</RouterLink>
            </QuietButton>
          </>
        ) : (
          <Text fontSize="sm" color="quiet">
            Tags and sessions: at most {MOST_TAGGED} at a time.
          </Text>
        )}
        <QuietButton name="intent" value="delete" disabled={busy} grave>
          Delete
        </QuietButton>
        <QuietButton type="button" onClick={clear}>
          Choose none
        </QuietButton>
      </Flex>
    </Form>
  )
}
