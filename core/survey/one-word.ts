/** A name within a line of words: spaces are underscores, and what would not come back is written by its number. */
export const oneWord = (name: string): string =>
  name.replace(/[_%]|\s/g, (letter) => (letter === ' ' ? '_' : letter === '_' ? '%5F' : encodeURIComponent(letter)))
/** The name that `oneWord` wrote. */
export const fromWord = (word: string): string =>
  word.replaceAll('_', ' ').replace(/(?:%[0-9A-F]{2})+/g, (codes) => {
    try {
      return decodeURIComponent(codes)
    } catch {
      return codes
    }
  })
