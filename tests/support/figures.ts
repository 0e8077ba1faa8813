import { it } from 'vitest'
import { citeSource, commonPractice, fromMemory, published, type Source } from '../../core/standards/source'

// A check of a figure says where the figure is from: that is part of its shape, so that none can be without.

type Title = string
type Body = (...given: never[]) => unknown

/** Checks whose figures are from one source; the name of each tells it. */
const checksOf = (mark: string) => {
  const marked = (title: Title): string => `${title} [${mark}]`
  return Object.assign((title: Title, body: () => unknown) => it(marked(title), body as () => void), {
    each:
      <T>(rows: readonly T[]) =>
      (title: Title, body: Body) =>
        (it.each(rows as never[]) as unknown as (title: string, body: Body) => void)(marked(title), body),
  })
}
const from = (source: Source) => checksOf(citeSource(source))

/** Common practice of the trade: nothing is published that says so. */
export const practice = from(commonPractice('the trade'))
/** A document that is remembered, and that nobody here has opened. */
export const remembered = (document: string) => from(fromMemory(document))
/** A document, or the output of a program, that can be looked at. */
export const publishedIn = (where: string) => from(published(where))
/** A rule of Hallway's own, or plain arithmetic: no figure of the trade decides it. */
export const ours = checksOf('Hallway’s own')
