/** Room is left for the number that makes an id free. */
const LONGEST_STEM = 58

/** An id from a name: lower case letters, figures and hyphens; `nothing` where the name has none of these. */
export function slugOf(name: string, nothing: string): string {
  const slug = name
    .normalize('NFKD')
    .toLowerCase()
    .replace(/[\u0300-\u036f]/g, '')
    .split(/[^a-z0-9]+/)
    .filter(Boolean)
    .join('-')
    .slice(0, LONGEST_STEM)
  return slug || nothing
}

/** Gives out ids that are free: the wanted one, or the first with a number behind it. What is given out is taken. */
export function freeIds(taken: Iterable<string>): (wanted: string) => string {
  const known = new Set(taken)
  const last = new Map<string, number>()
  return (wanted) => {
    let id = wanted
    let number = last.get(wanted) ?? 1
    while (known.has(id)) {
      number += 1
      id = `${wanted.slice(0, LONGEST_STEM)}-${number}`
    }
    last.set(wanted, number)
    known.add(id)
    return id
  }
}
