import { Text } from '@chakra-ui/react'
import { isNearlyFull, type Stored, storedWords } from '../../../core/files/storage'
import { Notice } from '../../ui/controls'

/** What a site keeps and what it may, in one line; what is nearly full stands out. */
export function StoredLine({ stored }: { stored: readonly Stored[] }) {
  return (
    <>
      <NearlyFull stored={stored} />
      <Text fontSize="sm" mt="3">
        Kept of this site: {stored.map((each) => `${each.what} ${storedWords(each)}`).join(', ')}.
      </Text>
    </>
  )
}

/** Says what is nearly full, and nothing where there is room. */
export function NearlyFull({ stored }: { stored: readonly Stored[] }) {
  const full = stored.filter(isNearlyFull)
  if (full.length === 0) return null
  return (
    <Notice tone="tight">
      This site has little room left: {full.map((each) => `${each.what} ${storedWords(each)}`).join(', ')}. What is
      replaced or removed frees its room once undo of it has ended.
    </Notice>
  )
}
