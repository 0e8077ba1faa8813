import { Box, Flex } from '@chakra-ui/react'
import { Link as RouterLink, useLocation } from 'react-router'

/** `under` names the addresses whose pages belong to the stage, beside its own. */
export type Stage = { to: string; under?: readonly string[]; name: string; waiting: number; hint: string }

/** The wayfinding sign: the stages in the order of the work, each with how many things wait there. A bar at the bottom on a phone. */
export function StageSign({ stages }: { stages: readonly Stage[] }) {
  const { pathname } = useLocation()
  const isHere = ({ to, under = [] }: Stage): boolean =>
    pathname === to || under.some((each) => pathname === each || pathname.startsWith(`${each}/`))
  return (
    <Box
      as="nav"
      aria-label="Stages"
      bg="sign"
      color="signInk"
      w={{ base: '100%', md: '168px' }}
      flex="none"
      position={{ base: 'fixed', md: 'static' }}
      bottom={{ base: 0, md: 'auto' }}
      alignSelf="stretch"
      minH={{ md: 'calc(100vh - 52px)' }}
      zIndex="docked"
      borderTop={{ base: '1px solid', md: 'none' }}
      borderColor="signQuiet"
    >
      <Flex
        as="ul"
        listStyleType="none"
        direction={{ base: 'row', md: 'column' }}
        pt={{ md: '4' }}
        position={{ md: 'sticky' }}
        top={{ md: 0 }}
      >
        {stages.map((stage) => (
          <Box as="li" key={stage.to} flex={{ base: '1', md: 'none' }}>
            <RouterLink to={stage.to} title={stage.hint} aria-current={isHere(stage) ? 'page' : undefined}>
              <Flex
                align="center"
                justify="space-between"
                direction={{ base: 'column', md: 'row' }}
                px="4"
                py={{ base: '1.5', md: '2.5' }}
                gap={{ base: '0', md: '2' }}
                fontWeight={isHere(stage) ? '800' : '500'}
                bg={isHere(stage) ? 'whiteAlpha.200' : 'transparent'}
                borderLeft={{ md: '4px solid' }}
                borderColor={{ md: isHere(stage) ? '#D9A04A' : 'transparent' }}
                _hover={{ bg: 'whiteAlpha.100' }}
              >
                <Box as="span">{stage.name}</Box>
                <Box as="span" fontFamily="mono" fontSize="sm" color={stage.waiting > 0 ? '#F2C46D' : 'signQuiet'}>
                  {stage.waiting}
                  <Box as="span" srOnly>
                    {' '}
                    waiting
                  </Box>
                </Box>
              </Flex>
            </RouterLink>
          </Box>
        ))}
      </Flex>
    </Box>
  )
}
