import { Link } from '@chakra-ui/react'
import { Link as RouterLink } from 'react-router'
import type { ListName } from '../../../core/plan/entity'
import { useSite } from '../../ui/site-context'

/** To what was changed of one run, cable or device. */
export function HistoryLink({ list, id }: { list: ListName; id: string }) {
  const { plan } = useSite()
  return (
    <Link asChild fontSize="sm" color="brassInk" textDecoration="underline">
      <RouterLink to={`/sites/${plan.site.id}/history?${new URLSearchParams({ list, id })}`}>Its history</RouterLink>
    </Link>
  )
}
