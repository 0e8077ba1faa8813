import { Box, Flex } from '@chakra-ui/react'
import type { LackFigures } from '../../../../core/checks/finding'
import { lackSentence } from '../../../../core/checks/wording'
import { type CableDoor, cableDoors, failedText } from '../../../../core/drawer/cable-doors'
import type { SiteIndex } from '../../../../core/plan/site-index'
import { linkModeFacts } from '../../../../core/standards/link-modes'
import type { Cable } from '../../../../core/vocabulary/cable'
import { DoorGlyph } from '../../../ui/grade'
import { useUnit } from '../../../ui/units'

/**
 * Every rate as a door, open or shut at this cable's length, and why, said once where several are shut for the same reason; `brief` says it
 * of the first only.
 */
export function DoorList({ index, cable, brief }: { index: SiteIndex; cable: Cable; brief?: true }) {
  const unit = useUnit()
  const doors = cableDoors(index, cable)
  return (
    <Box as="ul" listStyleType="none" fontSize="sm">
      {doors.map(({ mode, open }, at) => {
        const said = saidOf(doors, at, brief === true, (lack) => lackSentence(lack, cable.tag, unit))
        return (
          <Flex as="li" key={mode} gap="2" py="0.5" align="start" color={open ? 'ink' : 'quiet'}>
            <DoorGlyph grade={open ? 'clear' : 'blocked'} size={16} />
            <Box minW="0">
              <Box as="span" fontWeight={open ? '600' : '400'}>
                {linkModeFacts[mode].name}
              </Box>
              <Box as="span" srOnly>
                {open ? ', open' : ', shut'}
              </Box>
              {said && (
                <Box color="quiet" fontSize="xs">
                  {said}
                </Box>
              )}
            </Box>
          </Flex>
        )
      })}
    </Box>
  )
}

/** What is said of one of the doors; nothing where it was said of the one before. */
function saidOf(doors: CableDoor[], at: number, brief: boolean, sentence: (lack: LackFigures) => string): string {
  const door = doors[at]
  if (!door) return ''
  const { open, lack, beyondBook, seen } = door
  if (open) return beyondBook ? 'by the bench, beyond the book' : socketsText(seen, doors[at + 1])
  const isFirst = brief ? at === doors.findLastIndex((each) => each.open) + 1 : lack?.why !== doors[at - 1]?.lack?.why
  if (!lack || !isFirst) return ''
  return lack.why === 'doubted' ? failedText(seen) : sentence(lack)
}

/** In how many sockets a rate came up; said of the widest of those that came up alike. */
function socketsText({ held }: CableDoor['seen'], wider: CableDoor | undefined): string {
  if (held === 0 || (wider?.open && wider.seen.held === held)) return ''
  return `this and what is below came up in ${held === 1 ? 'one socket' : `${held} sockets`}`
}
