import { createColumnHelper, createSortedRowModel, rowSortingFeature, tableFeatures } from '@tanstack/react-table'
import { Link as RouterLink } from 'react-router'
import type { DrawerRow } from '../../../../core/drawer/drawer-rows'
import { BASES, type Basis } from '../../../../core/observe/basis'
import { formatWatts } from '../../../../core/quantity/watts'
import { connectorNames, type End } from '../../../../core/standards/connectors'
import { Length } from '../../../ui/units'
import { UseDoor } from '../../../ui/use-door'

export const features = tableFeatures({
  rowSortingFeature,
  sortedRowModel: createSortedRowModel(),
  sortFns: {
    figures: (one: { getValue: (id: string) => unknown }, other: { getValue: (id: string) => unknown }, id: string) =>
      Number(one.getValue(id)) - Number(other.getValue(id)),
    words: (one: { getValue: (id: string) => unknown }, other: { getValue: (id: string) => unknown }, id: string) =>
      words.compare(String(one.getValue(id)), String(other.getValue(id))),
  },
})
/** "C-2" before "C-10". */
const words = new Intl.Collator('en', { numeric: true })

const helper = createColumnHelper<typeof features, DrawerRow>()

const endName = (end: End): string => `${connectorNames[end.connector]}${end.gender === 'socket' ? ' socket' : ''}`

/** The ends of a cable, with an arrow where it carries one way only. */
const endsText = ({ cable }: DrawerRow): string => {
  const [one, other] = cable.ends.map(endName)
  return cable.oneWay ? `${one} → ${other}` : one === other ? `2 × ${one}` : `${one} – ${other}`
}

const whereText = ({ where }: DrawerRow): string => (where.at === 'run' ? where.run.tag : where.at)

export const columns = helper.columns([
  helper.accessor(({ cable }) => cable.tag, {
    id: 'tag',
    header: 'Tag',
    sortFn: 'words',
    cell: ({ row: { original } }) => <Tag row={original} />,
  }),
  helper.accessor(({ abilities }) => abilities.rate, {
    id: 'data',
    header: 'Good for',
    sortFn: 'figures',
    cell: ({ row: { original } }) => <UseDoor abilities={original.abilities} />,
  }),
  helper.accessor(({ abilities }) => abilities.picture?.rate ?? 0, {
    id: 'picture',
    header: 'Picture',
    sortFn: 'figures',
    cell: ({ row: { original } }) => original.abilities.picture?.name.replace('DisplayPort', 'DP') ?? '',
  }),
  helper.accessor(({ abilities }) => abilities.watts, {
    id: 'watts',
    header: 'Power',
    sortFn: 'figures',
    cell: ({ row: { original } }) => (original.abilities.watts > 0 ? formatWatts(original.abilities.watts) : ''),
  }),
  helper.accessor(({ cable }) => cable.length, {
    id: 'length',
    header: 'Length',
    sortFn: 'figures',
    cell: ({ row: { original } }) => <Length metres={original.cable.length} brief />,
  }),
  helper.accessor(endsText, {
    id: 'ends',
    header: 'Ends',
    sortFn: 'words',
    cell: ({ row: { original } }) => (
      <>
        {endsText(original)}
        {original.cable.construction !== 'passive' && `, ${original.cable.construction}`}
      </>
    ),
  }),
  helper.accessor(({ abilities }) => BASES.indexOf(abilities.basis), {
    id: 'basis',
    header: 'Known by',
    sortFn: 'figures',
    cell: ({ row: { original } }) => <KnownBy row={original} />,
  }),
  helper.accessor(whereText, {
    id: 'where',
    header: 'Where',
    sortFn: 'words',
    cell: ({ row: { original } }) => (
      <>
        {original.where.at === 'run' ? `run ${whereText(original)}` : whereText(original)}
        {original.pairing && <small title={`came with ${original.pairing}`}>with {original.pairing}</small>}
      </>
    ),
  }),
  helper.accessor(({ last }) => last, { id: 'last', header: 'Last read', sortFn: 'words' }),
])

/** Reached with Enter from the row, so that Tab does not stop at thousands of links. */
const Tag = ({ row: { cable } }: { row: DrawerRow }) => (
  <RouterLink
    to={`../cables/${encodeURIComponent(cable.id)}`}
    relative="path"
    tabIndex={-1}
    data-retired={cable.standing === 'retired' || undefined}
  >
    {cable.tag}
  </RouterLink>
)

const basisWords: Record<Basis, string> = {
  assumed: 'assumed',
  looks: 'its look',
  told: 'somebody',
  listed: 'its listing',
  claimed: 'its mark',
  supplied: 'its device',
  chip: 'its chip',
  measured: 'measured',
  soaked: 'soaked',
}

function KnownBy({ row: { abilities, open } }: { row: DrawerRow }) {
  if (open === 'unknown') return <span data-open="">nothing yet</span>
  if (open === 'hot') return <span data-open="">ran hot</span>
  return (
    <>
      {basisWords[abilities.basis]}
      {open === 'disagrees' && <small data-open="">but disagrees</small>}
    </>
  )
}
