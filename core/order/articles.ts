import type { SiteIndex } from '../plan/site-index'
import type { Metres } from '../quantity/length'
import type { CableKind } from '../vocabulary/cable'
import type { PortSite } from '../vocabulary/device'
import { leadKey } from '../vocabulary/run'
import { keptWith } from '../work/kept'

/** Where an article can be had, and on what terms. */
export type Source = {
  /** Null: the catalogue names a price and nobody who sells it. */
  supplier: string | null
  offer: string | null
  /** For one, in the site's currency. */
  price: number
  /** Days until it is here; null where nobody says. */
  leadDays: number | null
  /** Days within which it may go back; null where nobody says, 0 for never. */
  returnDays: number | null
  /** How many there are; null: enough. */
  available: number | null
  /** Sockets for which none of these is taken back. */
  excludes: readonly PortSite[]
}

/** One length of a kind: what is bought, kept as a spare and sorted into one drawer. */
export type Article = {
  key: string
  kind: CableKind
  length: Metres
  sources: readonly Source[]
  /** What one of them costs beside its price: parts that it needs and that are not in its box. */
  extra: number
}

/** What a kind needs beside it and does not bring in its box: a supply, an adapter, drivers. */
export function missingParts({ wants = [], includes = [] }: Pick<CableKind, 'wants' | 'includes'>): string[] {
  const there = new Set(includes.map((name) => name.toLowerCase()))
  return wants.filter((name) => !there.has(name.toLowerCase()))
}

/** What an article is called: the kind and the length, as a lead of a run that is yet to be bought names them. */
export const articleKey = (kind: string, length: Metres): string => leadKey({ kind, length, reversed: false })

/** The kind and the length that an article is called by. */
export function articleParts(article: string): { kind: string; length: number } {
  const at = article.lastIndexOf('@')
  return { kind: article.slice(0, at), length: Number(article.slice(at + 1)) }
}

/**
 * Everything that can be bought for a site: each length of each kind with all its sources, those of the suppliers and, where none of these sells it, the price
 * of the catalogue. A supplier that is avoided sells nothing. By article.
 */
export const articlesOf = keptWith(({ plan }: SiteIndex): ReadonlyMap<string, Article> => {
  const articles = new Map<string, Article & { sources: Source[] }>()
  const kinds = new Map(plan.kinds.map((kind) => [kind.id, kind]))
  const suppliers = new Map(plan.suppliers.map((supplier) => [supplier.id, supplier]))
  const articleOf = (kind: CableKind, length: Metres) => {
    const key = articleKey(kind.id, length)
    const extra = missingParts(kind).length > 0 ? (kind.wantsPrice ?? 0) : 0
    const found = articles.get(key) ?? { key, kind, length, sources: [], extra }
    articles.set(key, found)
    return found
  }
  for (const { id, supplier, kind, length, price, available, leadDays, returnDays, excludes = [] } of plan.offers) {
    const sold = kinds.get(kind)
    const seller = suppliers.get(supplier)
    if (!sold || !seller || seller.avoid) continue
    articleOf(sold, length).sources.push({
      supplier,
      offer: id,
      price,
      leadDays: leadDays ?? seller.leadDays ?? sold.leadDays ?? null,
      returnDays: returnDays ?? seller.returnDays ?? sold.returnDays ?? null,
      available: available ?? null,
      excludes,
    })
  }
  const offered = new Set(plan.offers.map(({ kind, length }) => articleKey(kind, length)))
  for (const kind of plan.kinds)
    for (const { length, price } of kind.stock) {
      if (offered.has(articleKey(kind.id, length))) continue
      articleOf(kind, length).sources.push({
        supplier: null,
        offer: null,
        price,
        leadDays: kind.leadDays ?? null,
        returnDays: kind.returnDays ?? null,
        available: null,
        excludes: [],
      })
    }
  return articles
})
