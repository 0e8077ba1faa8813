import { Box, Flex, Text } from '@chakra-ui/react'
import { useEffect, useRef } from 'react'
import { Link as RouterLink } from 'react-router'
import type { LogPosition } from '../../core/change/change'
import look from './clash-notice.module.css'
import { MainButton, Notice, QuietButton } from './controls'

/** One thing that both changed, each version in words. */
export type ClashLine = { name: string; mine: string; theirs: string }

type Props = {
  /** What it is: "run", "cable". */
  what: string
  by: string
  lines: readonly ClashLine[]
  deleted: boolean
  place: LogPosition
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
        <table className={look.lines}>
          <tbody>
            {lines.map((line) => (
              <tr key={line.name}>
                <th scope="row">{line.name}</th>
                <td>you say {line.mine || 'nothing'}</td>
                <td>
                  {by} says {line.theirs || 'nothing'}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
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
