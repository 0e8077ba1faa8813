/** Room is left for the number behind a name. */
const LONGEST_STEM = 110

/** The name that comes after one: "Desk 2" after "Desk", "Desk 12" after "Desk 11". */
function nameAfter(name: string): string {
  const [, stem, number] = /^(.{1,100}) (\d{1,6})$/.exec(name) ?? []
  return stem && number ? `${stem} ${Number(number) + 1}` : `${name.slice(0, LONGEST_STEM)} 2`
}

/** Gives out names that nothing else has, whatever their case: the wanted one, or the first with another number. What is given out is taken. */
export function freeNames(taken: Iterable<string>): (wanted: string) => string {
  const known = new Set([...taken].map((name) => name.toLowerCase()))
  return (wanted) => {
    let name = wanted
    while (known.has(name.toLowerCase())) name = nameAfter(name)
    known.add(name.toLowerCase())
    return name
  }
}

/**
 * What something at a place is called at a copy of it: the name of the place in it, or its number, becomes that of the copy.
 *
 * @example nameAt('Desk 1 laptop', 'Desk 1', 'Desk 2') // 'Desk 2 laptop'
 */
export function nameAt(name: string, place: string, copy: string): string {
  const at = name.toLowerCase().indexOf(place.toLowerCase())
  if (at >= 0) return (name.slice(0, at) + copy + name.slice(at + place.length)).slice(0, LONGEST_NAME)
  const [number, other] = [place, copy].map((each) => /(\d{1,6})(?!.*\d)/.exec(each)?.[1])
  if (number === undefined || other === undefined) return name
  // a number that stands by itself, and not the 4 of 4K
  return name.replace(new RegExp(`(?<![\\w.])${number}(?![\\w.])`), other)
}
const LONGEST_NAME = 120
