/** The tag after the highest that ends in a number: "C-0050" gives "C-0051". */
export function nextTag(tags: readonly string[]): string {
  let highest: { prefix: string; number: number; digits: number } | null = null
  for (const tag of tags) {
    const [, prefix, figures] = /^(.*?)(\d{1,9})$/.exec(tag) ?? []
    if (prefix === undefined || figures === undefined) continue
    if (highest === null || Number(figures) > highest.number)
      highest = { prefix, number: Number(figures), digits: figures.length }
  }
  if (highest === null) return 'C-0001'
  return `${highest.prefix}${String(highest.number + 1).padStart(highest.digits, '0')}`
}
