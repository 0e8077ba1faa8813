/** What an address may say many times: choices that are kept, kinds that are not bought, and avoided ones that are. */
export type Wish = 'keep' | 'without' | 'allow'

/** An address with one more thing wished; of a run one choice is kept. */
export function withParam(params: URLSearchParams, name: Wish, value: string): URLSearchParams {
  const next = new URLSearchParams(params)
  const others = next.getAll(name).filter((each) => each !== value && !(name === 'keep' && sameRun(each, value)))
  next.delete(name)
  for (const each of [...others, value]) next.append(name, each)
  return next
}

const sameRun = (one: string, other: string): boolean => one.split('/')[0] === other.split('/')[0]

export function withoutParam(params: URLSearchParams, name: Wish, value: string): URLSearchParams {
  const next = new URLSearchParams(params)
  const others = next.getAll(name).filter((each) => each !== value)
  next.delete(name)
  for (const each of others) next.append(name, each)
  return next
}
