import { Box, Flex } from '@chakra-ui/react'
import { Link as RouterLink } from 'react-router'
import type { Soaking } from '../../../../core/bench/progress'
import type { SiteIndex } from '../../../../core/plan/site-index'
import type { Session } from '../../../../core/vocabulary/session'
import { useSeconds } from '../../../ui/use-seconds'

/** Soaks that run while other cables are tested: what is over calls to be read. */
export function SoakTray({ session, index, soaks }: { session: Session; index: SiteIndex; soaks: readonly Soaking[] }) {
  if (soaks.length === 0) return null
  return (
    <Flex as="section" aria-label="Soaks that run" gap="2" mb="3" wrap="wrap">
      {soaks.map((soak) => (
        <Tile
          key={`${soak.cable} ${soak.test} ${Math.round(soak.seconds)}`}
          tag={index.cables.get(soak.cable)?.tag ?? soak.cable}
          soak={soak}
          whole={soakSeconds(session, soak.test)}
        />
      ))}
    </Flex>
  )
}

export function soakSeconds(session: Session, testId: string): number {
  const test = session.tests.find(({ id }) => id === testId)
  return test?.kind === 'link' ? test.soak : 0
}

function Tile({ tag, soak, whole }: { tag: string; soak: Soaking; whole: number }) {
  const seconds = useSeconds(soak.seconds)
  const over = seconds >= whole
  return (
    <RouterLink to={{ search: `cable=${soak.cable}&test=${soak.test}` }}>
      <Flex
        gap="3"
        px="3"
        py="2"
        align="center"
        bg={over ? 'clearFloor' : 'noteFloor'}
        borderLeft="4px solid"
        borderColor={over ? 'clear' : 'note'}
        borderRadius="2px"
      >
        <Box as="span" fontFamily="mono" fontWeight="700">
          {tag}
        </Box>
        <Box as="span" fontFamily="mono" role="timer" suppressHydrationWarning>
          {over ? 'soak over: read it' : `${Math.ceil(whole - seconds)} s`}
        </Box>
      </Flex>
    </RouterLink>
  )
}
