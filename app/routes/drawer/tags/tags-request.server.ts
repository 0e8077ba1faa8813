import { data } from 'react-router'
import { indexPlan } from '../../../../core/plan/site-index'
import { LABEL_SIZES, type LabelSize, MOST_TAGGED } from '../../../../core/tags/label'
import { type TagRequest, taggedOf } from '../../../../server/tags/tag-sheets'
import { loadSite } from '../../../stored.server'
import { readUnit } from '../../../unit-cookie'

/** The tags an address asks for: cables by their ids, a size, and the address that their codes open. */
export async function tagsAsked(request: Request, site: string): Promise<TagRequest> {
  const { searchParams, origin } = new URL(request.url)
  const index = indexPlan((await loadSite(site)).copy.plan)
  const cables = idsAsked(searchParams).flatMap((id) => index.cables.get(id) ?? [])
  if (cables.length === 0) throw data('No cable of this site was asked for.', { status: 404 })
  return {
    tagged: taggedOf(index, cables, readUnit(request)),
    site,
    size: sizeAsked(searchParams),
    address: addressAsked(searchParams) ?? origin,
  }
}

export const idsAsked = (params: URLSearchParams): string[] =>
  (params.get('cables') ?? '').split(' ').filter(Boolean).slice(0, MOST_TAGGED)

export function sizeAsked(params: URLSearchParams): LabelSize {
  const size = LABEL_SIZES.find(({ id }) => id === params.get('size')) ?? LABEL_SIZES[0]
  if (!size) throw new Error('there is no label size')
  return size
}

/** Only a plain web address: what a phone opens must not be anything else. */
export function addressAsked(params: URLSearchParams): string | null {
  const text = (params.get('address') ?? '').trim()
  if (text === '' || text.length > 120 || !URL.canParse(text)) return null
  const { protocol, origin } = new URL(text)
  return protocol === 'http:' || protocol === 'https:' ? origin : null
}
