/**
 * What follows from a list alone is kept with the very list: what a change has not touched is not worked out again. `keep` takes what somebody knows
 * to be the answer, who made the list out of one that was worked out already.
 */
export function keptWith<List extends object, Answer>(work: (list: List) => Answer) {
  const answers = new WeakMap<List, Answer>()
  const ask = (list: List): Answer => {
    const found = answers.get(list)
    if (found !== undefined) return found
    const answer = work(list)
    answers.set(list, answer)
    return answer
  }
  return Object.assign(ask, {
    keep: (list: List, answer: Answer): void => void answers.set(list, answer),
    known: (list: List): Answer | undefined => answers.get(list),
  })
}
