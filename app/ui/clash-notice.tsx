import { Box, Flex, Table, Text } from '@chakra-ui/react'
import { useEffect, useRef } from 'react'
import { Link as RouterLink } from 'react-router'
import type { Place } from '../../core/change/change'
import { MainButton, Notice, QuietButton } from './controls'

/** One thing that both changed, each version in words. */
export type ClashLine = { name: string; mine: string; theirs: string }

type Props = {
  /** What it is: "run", "cable". */
  what: string
  by: string
  lines: readonly ClashLine[]
  deleted: boolean
  place: Place
  form: string
  /** Where theirs is to be seen. */
  theirs: string
}

/** Somebody saved the same first: what each made of it, and the two ways on. Nothing of either is lost. */
export function ClashNotice({ what, by, lines, deleted, place, form, theirs }: Props) {
  const heading = useRef<HTMLParagraphElement>(null)
  // the button that was pressed is far below
  useEffect(() => heading.current?.focus(), [])
  return (
    <Notice tone="tight">
      <Text fontWeight="700" ref={heading} tabIndex={-1}>
        {by} {deleted ? `deleted this ${what}` : `changed the same of this ${what}`} while you had it open. Nothing was
        saved; what you typed is still below.
      </Text>
      {lines.length > 0 && (
        <Table.Root size="sm" my="2" bg="transparent" maxW="640px">
          <Table.Body>
            {lines.map((line) => (
              <Table.Row key={line.name} bg="transparent">
                <Table.Cell fontWeight="600">{line.name}</Table.Cell>
                <Table.Cell>you say {line.mine || 'nothing'}</Table.Cell>
                <Table.Cell>
                  {by} says {line.theirs || 'nothing'}
                </Table.Cell>
              </Table.Row>
            ))}
          </Table.Body>
        </Table.Root>
      )}
      <Flex gap="3" mt="2" wrap="wrap">
        <MainButton form={form} name="over" value={String(place)}>
          {deleted ? 'Put it back as mine' : 'Save mine over theirs'}
        </MainButton>
        <QuietButton asChild>
          <RouterLink to={theirs} reloadDocument>
            {deleted ? 'Leave it deleted' : 'Take theirs'}
          </RouterLink>
        </QuietButton>
      </Flex>
      <Box srOnly role="alert">
        Conflict: choose whose version to keep.
      </Box>
    </Notice>
  )
}
