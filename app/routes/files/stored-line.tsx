import { isNearlyFull, type Stored, storedWords } from '../../../core/files/storage'
import text from '../../theme/text.module.css'
import { Notice } from '../../ui/controls'

/** What a site keeps and what it may, in one line; what is nearly full stands out. */
export function StoredLine({ stored }: { stored: readonly Stored[] }) {
  return (
    <>
      <NearlyFull stored={stored} />
      <p className={text.small}>
        Kept of this site: {stored.map((each) => `${each.what} ${storedWords(each)}`).join(', ')}.
      </p>
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
