import { Text } from '@chakra-ui/react'
import { Notice } from './controls'

/** Why a table was not taken, with what is wrong on which line of it. */
export function WrongLines({
  problem,
  lines = [],
}: {
  problem: string
  lines?: readonly { line: number; problems: readonly string[] }[] | undefined
}) {
  return (
    <Notice tone="blocked">
      <Text>{problem}</Text>
      {lines.map(({ line, problems }) => (
        <Text key={line}>
          line {line}: {problems.join('; ')}
        </Text>
      ))}
    </Notice>
  )
}
