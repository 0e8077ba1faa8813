import { Fragment, memo } from 'react'
import { Link as RouterLink } from 'react-router'
import { foldTag } from '../../../core/vocabulary/fields'
import text from '../../theme/text.module.css'
import { useSite } from '../../ui/site-context'
import look from './board.module.css'

/** What was noted of the site, line by line; the tags of runs and cables in it lead to them. */
export const SiteNote = memo(() => {
  const { plan, index } = useSite()
  const { note } = plan.site
  if (!note) return null
  const home = `/sites/${plan.site.id}`
  const address = (word: string): string | null => {
    const tag = foldTag(word)
    const run = plan.runs.find((each) => foldTag(each.tag) === tag)
    if (run) return `${home}/runs/${run.id}`
    const cable = [...index.cables.values()].find((each) => foldTag(each.tag) === tag)
    return cable ? `${home}/cables/${cable.id}` : null
  }
  return (
    <div className={look.note}>
      {note.split('\n').map((line, at) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: lines have no name but where they stand
        <p key={at}>
          {line.split(/([A-Za-z]{1,4}-\d{1,6})/).map((part, piece) => {
            const to = piece % 2 === 1 ? address(part) : null
            return to ? (
              // biome-ignore lint/suspicious/noArrayIndexKey: a tag may be named twice
              <RouterLink key={piece} to={to} className={text.link}>
                {part}
              </RouterLink>
            ) : (
              // biome-ignore lint/suspicious/noArrayIndexKey: pieces have no name but where they stand
              <Fragment key={piece}>{part}</Fragment>
            )
          })}
        </p>
      ))}
    </div>
  )
})
